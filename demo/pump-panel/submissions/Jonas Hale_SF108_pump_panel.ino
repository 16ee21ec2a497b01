// Jonas Hale. The panel has eight lamps.

int readLevel(int basin) {
  return analogRead(A0 + basin);
}

void setPump(int basin, bool on) {
  digitalWrite(4 + basin, on ? HIGH : LOW);
}

void showState() {
  int level = readLevel(0);
  if (level > 100) {
    digitalWrite(22, HIGH);
  } else {
    digitalWrite(22, LOW);
  }
  if (level > 200) {
    digitalWrite(23, HIGH);
  } else {
    digitalWrite(23, LOW);
  }
  if (level > 300) {
    digitalWrite(24, HIGH);
  } else {
    digitalWrite(24, LOW);
  }
  if (level > 400) {
    digitalWrite(25, HIGH);
  } else {
    digitalWrite(25, LOW);
  }
  if (level > 500) {
    digitalWrite(26, HIGH);
  } else {
    digitalWrite(26, LOW);
  }
}

void setup() {
  for (int pin = 22; pin < 30; pin++) {
    pinMode(pin, OUTPUT);
  }
}

void loop() {
  setPump(0, readLevel(0) > 500);
  showState();
  delay(300);
}
