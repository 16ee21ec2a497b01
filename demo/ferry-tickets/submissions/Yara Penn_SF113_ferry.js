// Ferry, with a menu for the ticket machine
const orders = ["adult", "child", "senior", "adult", "bike"];

function main() {
  let income = 0;
  let printed = 0;
  for (const order of orders) {
    switch (order) {
      case "adult":
        income = income + 800;
        printed = printed + 1;
        console.log("no. " + printed + "  ADULT    8.00");
        console.log("valid today only");
        break;
      case "child":
        income = income + 350;
        printed = printed + 1;
        console.log("no. " + printed + "  CHILD    3.50");
        console.log("valid today only");
        break;
      case "senior":
        income = income + 500;
        printed = printed + 1;
        console.log("no. " + printed + "  SENIOR   5.00");
        console.log("valid today only");
        break;
      default:
        console.log("no such ticket: " + order);
    }
  }
  console.log("income: " + income);
}

main();
