// a function for every pump
bool firstOn = false;
bool secondOn = false;
bool thirdOn = false;

void startFirstPump() {
  digitalWrite(4, HIGH);
  digitalWrite(9, HIGH);
  Serial.println("pump runs");
  delay(200);
}

void startSecondPump() {
  digitalWrite(5, HIGH);
  digitalWrite(10, HIGH);
  Serial.println("pump runs");
  delay(200);
}

void startThirdPump() {
  digitalWrite(6, HIGH);
  digitalWrite(11, HIGH);
  Serial.println("pump runs");
  delay(200);
}

void stopAll() {
  for (int pin = 4; pin <= 6; pin++) {
    digitalWrite(pin, LOW);
  }
}

void setup() {
  Serial.begin(9600);
}

void loop() {
  if (analogRead(A0) > 600) {
    startFirstPump();
  }
  if (analogRead(A1) > 600) {
    startSecondPump();
  }
  if (analogRead(A2) > 600) {
    startThirdPump();
  }
  delay(5000);
  stopAll();
}
