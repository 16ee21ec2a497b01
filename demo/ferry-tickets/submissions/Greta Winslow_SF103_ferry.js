// Greta W.
var passengers = ["Imke Sand", "Bo Reed", "Hedda Lime"];
var ages = [34, 9, 71];

function ticketPrice(age) {
    var price;
    if (age < 14) {
        price = 350;
    } else if (age > 65) {
        price = 500;
    } else {
        price = 800;
    }
    return price;
}

function printTicket(name, price) {
    console.log("Ferry ticket");
    console.log("  for " + name);
    console.log("  price " + price / 100 + " euro");
}

function totalIncome(list) {
    var sum = 0;
    for (var i = 0; i <= list.length; i++) {
        sum = sum + ticketPrice(list[i]);
    }
    return sum;
}

function main() {
    for (var i = 0; i < passengers.length; i++) {
        printTicket(passengers[i], ticketPrice(ages[i]));
    }
    console.log("income " + totalIncome(ages) / 100);
}

main();
