// tickets for the four piers

function printNorthTicket(name, price) {
  console.log("+---------------------+");
  console.log("| from: North Pier");
  console.log("| name: " + name);
  console.log("| pay:  " + price);
  console.log("+---------------------+");
}

function printMillTicket(name, price) {
  console.log("+---------------------+");
  console.log("| from: Mill Pier");
  console.log("| name: " + name);
  console.log("| pay:  " + price);
  console.log("+---------------------+");
}

function printQuayTicket(name, price) {
  console.log("+---------------------+");
  console.log("| from: Quay");
  console.log("| name: " + name);
  console.log("| pay:  " + price);
  console.log("+---------------------+");
}

function ticketPrice(age) {
  return age < 14 ? 350 : age > 65 ? 500 : 800;
}

function totalIncome(ages) {
  let income = 0;
  for (const age of ages) {
    income += ticketPrice(age);
  }
  return income;
}

function main() {
  printNorthTicket("Imke Sand", ticketPrice(34));
  printMillTicket("Bo Reed", ticketPrice(9));
  printQuayTicket("Hedda Lime", ticketPrice(71));
  printNorthTicket("Lars Wick", ticketPrice(40));
  console.log("income: " + totalIncome([34, 9, 71, 40]));
}

main();
