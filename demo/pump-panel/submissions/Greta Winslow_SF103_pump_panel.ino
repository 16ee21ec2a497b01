// Greta: pumps one after the other
#define HIGH_WATER 600

int pumpPins[3] = {4, 5, 6};

int readLevel(int basin) {
  int sum = 0;
  for (int i = 0; i < 4; i++) {
    sum = sum + analogRead(basin);
    delay(2);
  }
  return sum / 4;
}

void setPump(int number, int state) {
  digitalWrite(pumpPins[number], state);
}

void showState() {
  Serial.println("pumps set");
}

void setup() {
  Serial.begin(9600);
  for (int i = 0; i <= 3; i++) {
    pinMode(pumpPins[i], OUTPUT);
  }
}

void loop() {
  for (int i = 0; i < 3; i++) {
    if (readLevel(i) > HIGH_WATER) {
      setPump(i, HIGH);
    } else {
      setPump(i, LOW);
    }
  }
  showState();
  delay(1000);
}
