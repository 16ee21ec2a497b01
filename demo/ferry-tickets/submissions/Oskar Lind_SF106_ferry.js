const names = ["Imke Sand", "Bo Reed", "Hedda Lime", "Lars Wick"];
const ages = [34, 9, 71, 40];
let total = 0;

for (let i = 0; i < names.length; i++) {
  let price = 800;
  if (ages[i] < 14) {
    price = 350;
  }
  if (ages[i] > 65) {
    price = 500;
  }
  console.log("--- ferry ticket ---");
  console.log("name  " + names[i]);
  console.log("age   " + ages[i]);
  console.log("price " + price);
  total = total + price;
}

console.log("tickets sold: " + names.length);
console.log("income: " + total);
