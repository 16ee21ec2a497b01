const int sensor = A0;
const int pump = 4;

int readLevl(int pin) {
  int value = analogRead(pin);
  return value;
}

void setPump(int pin, bool on) {
  digitalWrite(pin, on);
}

void setup() {
  pinMode(pump, OUTPUT);
}

void loop() {
  // what the panel shows
  for (int i = 10; i > 0; i++) {
    digitalWrite(13, HIGH);
    delay(20);
  }
  if (readLevel(sensor) > 600) {
    setPump(pump, true);
  } else {
    setPump(pump, false);
  }
}
