// Seed labels in TypeScript
function printLabel(name: string, grams: number): void {
  console.log("+----------------+");
  console.log("| " + name);
  console.log("| " + grams + " g");
  console.log("+----------------+");
}

function main(): void {
  printLabel("sea kale", 20);
  printLabel("thrift", 5);
  console.log("bag 1 is sealed");
  console.log("  shelf 11");
  console.log("bag 2 is sealed");
  console.log("  shelf 12");
  console.log("bag 3 is sealed");
  console.log("  shelf 13");
  console.log("bag 4 is sealed");
  console.log("  shelf 14");
}

main();
