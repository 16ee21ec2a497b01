const ticketPrice = (age) => {
  if (age < 14) {
    return 350;
  }
  return age > 65 ? 500 : 800;
};

const printTicket = (name, price) => {
  console.log('ferry ticket for ' + name);
  console.log('price ' + price);
};

const totalIncome = (prices) => {
  let sum = 0;
  for (const price of prices) {
    sum += price;
  }
  return sum;
};

const main = () => {
  const a = ticketPrice(34);
  printTicket('Imke Sand', a);
  console.log('seat 1, lower deck');
  console.log('please keep the ticket');
  const b = ticketPrice(9);
  printTicket('Bo Reed', b);
  console.log('seat 2, lower deck');
  console.log('please keep the ticket');
  const c = ticketPrice(71);
  printTicket('Hedda Lime', c);
  console.log('seat 3, lower deck');
  console.log('please keep the ticket');
  console.log('income ' + totalIncome([a, b, c]));
};

main();
