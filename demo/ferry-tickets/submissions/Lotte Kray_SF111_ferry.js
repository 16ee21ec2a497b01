function func1(age) {
  if (age < 14) { return 350; }
  if (age > 65) { return 500; }
  return 800;
}

function func2(n, p) {
  console.log("ticket " + n);
  console.log("costs " + p);
}

function func3(list) {
  var t = 0;
  for (var i = 0; i < list.length; i++) { t = t + list[i]; }
  return t;
}

function main() {
  func2("Imke Sand", func1(34));
  func2("Bo Reed", func1(9));
  func2("Hedda Lime", func1(71));
  console.log(func3([func1(34), func1(9), func1(71)]));
}
main();
