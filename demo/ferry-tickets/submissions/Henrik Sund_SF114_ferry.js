// Henrik Sund
function ticketPrice(age) {
  if (age < 14) {
    return 350;
  }
  if (age > 65) {
    return 500;
  }
  return 800;

function printTicket(name, age) {
  console.log("Ferry ticket for " + name);
  console.log("price " + ticketPrice(age));
}

function main() {
  printTicket("Imke Sand", 34);
  printTicket("Bo Reed", 9);
}

main();
