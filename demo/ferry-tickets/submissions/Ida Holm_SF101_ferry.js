// Ferry tickets, Ida Holm

const crossing = [
  { name: "Imke Sand", age: 34 },
  { name: "Bo Reed", age: 9 },
  { name: "Hedda Lime", age: 71 },
  { name: "Lars Wick", age: 40 },
];

// children and old people pay less
function ticketPrice(age) {
  if (age < 14) return 350;
  if (age > 65) return 500;
  return 800;
}

function euros(cents) {
  return (cents / 100).toFixed(2);
}

// one ticket, as it is torn off
function printTicket(name, age) {
  console.log("-----------------------");
  console.log("Saltmarsh ferry");
  console.log(name + ", " + age + " years");
  console.log("to pay: " + euros(ticketPrice(age)));
}

// what the crossing brings in
function totalIncome(passengers) {
  let total = 0;
  for (const p of passengers) {
    total += ticketPrice(p.age);
  }
  return total;
}

function main() {
  for (const p of crossing) {
    printTicket(p.name, p.age);
  }
  console.log("-----------------------");
  console.log("income: " + euros(totalIncome(crossing)));
}

main();
