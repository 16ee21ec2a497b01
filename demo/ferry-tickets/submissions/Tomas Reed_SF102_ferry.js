function main() {
  console.log("*** SALTMARSH FERRY ***");
  console.log("passenger 1: Imke Sand");
  console.log("age: 34");
  let price1 = 800;
  console.log("price: " + price1);
  console.log("have a good crossing");
  console.log("");

  console.log("*** SALTMARSH FERRY ***");
  console.log("passenger 2: Bo Reed");
  console.log("age: 9");
  let price2 = 350;
  console.log("price: " + price2);
  console.log("have a good crossing");
  console.log("");

  console.log("*** SALTMARSH FERRY ***");
  console.log("passenger 3: Hedda Lime");
  console.log("age: 71");
  let price3 = 500;
  console.log("price: " + price3);
  console.log("have a good crossing");
  console.log("");

  console.log("*** SALTMARSH FERRY ***");
  console.log("passenger 4: Lars Wick");
  console.log("age: 40");
  let price4 = 800;
  console.log("price: " + price4);
  console.log("have a good crossing");
  console.log("");

  let total = price1 + price2 + price3 + price4;
  console.log("total " + total);
}
main();
