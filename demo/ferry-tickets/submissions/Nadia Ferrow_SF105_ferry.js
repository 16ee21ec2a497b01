/* Ferry tickets
   Nadia Ferrow */

const FARES = { child: 350, senior: 500, adult: 800 };

let sold = 0;

/* which fare is it */
function ticketPrice(age) {
  if (age < 14) {
    sold = sold + 1;
    console.log("fare: child");
    console.log("counting ticket " + sold);
    console.log("cents: " + FARES.child);
    return FARES.child;
  }
  if (age > 65) {
    sold = sold + 1;
    console.log("fare: senior");
    console.log("counting ticket " + sold);
    console.log("cents: " + FARES.senior);
    return FARES.senior;
  }
  sold = sold + 1;
  console.log("fare: adult");
  console.log("counting ticket " + sold);
  console.log("cents: " + FARES.adult);
  return FARES.adult;
}

/* prints one ticket */
function printTicket(name, age) {
  const price = ticketPrice(age);
  console.log("ticket for " + name + ": " + price);
  return price;
}

function totalIncome(prices) {
  return prices.reduce((sum, price) => sum + price, 0);
}

function main() {
  const prices = [
    printTicket("Imke Sand", 34),
    printTicket("Bo Reed", 9),
    printTicket("Hedda Lime", 71),
  ];
  console.log("income " + totalIncome(prices));
}

main();
