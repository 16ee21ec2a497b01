void setup() {
  Serial.begin(9600);
  pinMode(4, OUTPUT);
  pinMode(5, OUTPUT);
  pinMode(6, OUTPUT);
  pinMode(9, OUTPUT);
  pinMode(10, OUTPUT);
  pinMode(11, OUTPUT);
}

void loop() {
  int level0 = analogRead(A0);
  Serial.print("basin 0: ");
  Serial.println(level0);
  if (level0 > 600) {
    digitalWrite(4, HIGH);
    digitalWrite(9, HIGH);
  } else {
    digitalWrite(4, LOW);
    digitalWrite(9, LOW);
  }

  int level1 = analogRead(A1);
  Serial.print("basin 1: ");
  Serial.println(level1);
  if (level1 > 600) {
    digitalWrite(5, HIGH);
    digitalWrite(10, HIGH);
  } else {
    digitalWrite(5, LOW);
    digitalWrite(10, LOW);
  }

  int level2 = analogRead(A2);
  Serial.print("basin 2: ");
  Serial.println(level2);
  if (level2 > 600) {
    digitalWrite(6, HIGH);
    digitalWrite(11, HIGH);
  } else {
    digitalWrite(6, LOW);
    digitalWrite(11, LOW);
  }

  delay(1000);
}
