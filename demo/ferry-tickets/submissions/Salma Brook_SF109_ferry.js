// Ferry tickets. Everything happens in main.
function main() {
  const people = ["Imke Sand", "Bo Reed", "Hedda Lime", "Lars Wick", "Ona Pell"];
  const ages = [34, 9, 71, 40, 12];
  const bikes = [1, 0, 0, 2, 1];
  let income = 0;
  let children = 0;

  // tickets
  for (let i = 0; i < people.length; i++) {
    let price = 800;
    if (ages[i] < 14) {
      price = 350;
      children++;
    } else if (ages[i] > 65) {
      price = 500;
    }
    price = price + bikes[i] * 200;
    income = income + price;
    console.log(people[i] + " pays " + price);
  }

  // passenger list for the captain
  console.log("CAPTAIN'S LIST");
  let longest = 0;
  for (const name of people) {
    if (name.length > longest) {
      longest = name.length;
    }
  }
  for (let i = 0; i < people.length; i++) {
    console.log(people[i].padEnd(longest + 2) + ages[i]);
  }
  console.log("children on board: " + children);

  // life jackets
  console.log("LIFE JACKETS");
  let large = 0;
  let small = 0;
  for (const age of ages) {
    if (age < 14) {
      small++;
    } else {
      large++;
    }
  }
  console.log("large: " + large);
  console.log("small: " + small);

  console.log("income: " + income);
}

main();
