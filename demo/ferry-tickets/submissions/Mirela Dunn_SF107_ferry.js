// Mirela's ferry

function ticketPrise(age) {
  if (age < 14) {
    return 350;
  }
  if (age > 65) {
    return 500;
  }
  return 800;
}

function printTicket(name, age) {
  console.log("Saltmarsh ferry ticket");
  console.log(name);
  console.log("price in cents: " + ticketPrise(age));
}

function totalIncome(ages) {
  let sum = 0;
  for (const age of ages) {
    sum += ticketPrise(age);
  }
  return sum;
}

function printGoodbye(name) {
  console.log("Goodbye " + name);
}

function main() {
  printTicket("Imke Sand", 34);
  printTicket("Bo Reed", 9);
  printTicket("Hedda Lime", 71);
  console.log("income " + totalIncome([34, 9, 71]));
}

main();
