// Ferry tickets of the Saltmarsh field station: one crossing, its tickets and what it brings in.

const PASSENGERS = [
  { name: "Imke Sand", age: 34 },
  { name: "Bo Reed", age: 9 },
  { name: "Hedda Lime", age: 71 },
];

function ticketPrice(age) {
  if (age < 14) {
    return 350;
  }
  if (age > 65) {
    return 500;
  }
  return 800;
}

function printTicket(name, price) {
  console.log("=== Saltmarsh ferry ===");
  console.log("passenger: " + name);
  console.log("price:     " + (price / 100).toFixed(2));
}

function totalIncome(passengers) {
  let total = 0;
  for (const passenger of passengers) {
    total = total + ticketPrice(passenger.age);
  }
  return total;
}

function main() {
  for (const passenger of PASSENGERS) {
    printTicket(passenger.name, ticketPrice(passenger.age));
  }
  console.log("income: " + (totalIncome(PASSENGERS) / 100).toFixed(2));
}

main();
