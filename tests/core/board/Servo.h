// A motor that notes where it is turned to.
struct Servo {
  int pin = -1;
  void attach(int to) { note("attach", pin = to, 0); }
  void write(int angle) { note("turn", pin, angle); }
};
