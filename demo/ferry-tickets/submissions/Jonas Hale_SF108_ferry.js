// ferry with a discount card

function ticketPrice(age, card, weekday) {
  let price = 800;
  if (age < 14) {
    price = 350;
  } else if (age > 65) {
    price = 500;
  }
  if (card) {
    price = price * 0.8;
  }
  return price;
}

function printTicket(name, price) {
  console.log(`Ticket: ${name}`);
  console.log(`Price:  ${(price / 100).toFixed(2)}`);
}

function totalIncome(prices) {
  let total = 0;
  for (const price of prices) {
    total += price;
  }
  return total;
}

function main() {
  const first = ticketPrice(34, true, "mon");
  const second = ticketPrice(9, false, "mon");
  const third = ticketPrice(71, false, "mon");
  printTicket("Imke Sand", first);
  printTicket("Bo Reed", second);
  printTicket("Hedda Lime", third);
  console.log("income " + totalIncome([first, second, third]));
}

main();
