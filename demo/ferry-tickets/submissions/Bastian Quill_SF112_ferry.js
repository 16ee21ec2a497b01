// Bastian Quill: ferry tickets for morning and evening

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
  console.log(name + " ...... " + price);
}

function morningCrossing(ages) {
  console.log("MORNING CROSSING");
  let income = 0;
  let count = 0;
  for (const age of ages) {
    income += ticketPrice(age);
    count++;
  }
  console.log("passengers: " + count);
  console.log("mean fare:  " + Math.round(income / count));
  console.log("the flag is up");
  return income;
}

function eveningCrossing(ages) {
  console.log("EVENING CROSSING");
  console.log("lamps on");
  let income = 0;
  let count = 0;
  for (const age of ages) {
    income += ticketPrice(age);
    count++;
  }
  console.log("passengers: " + count);
  console.log("mean fare:  " + Math.round(income / count));
  return income;
}

function main() {
  printTicket("Imke Sand", ticketPrice(34));
  printTicket("Bo Reed", ticketPrice(9));
  const morning = morningCrossing([34, 9, 71]);
  const evening = eveningCrossing([40, 12]);
  console.log("income: " + (morning + evening));
}

main();
