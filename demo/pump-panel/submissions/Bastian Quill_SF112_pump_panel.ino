// Pump panel with everything in loop. Bastian Quill

const int SENSORS[] = {A0, A1, A2};
const int PUMPS[] = {4, 5, 6};
int levels[3];
long rounds = 0;

void setup() {
  Serial.begin(9600);
  for (int i = 0; i < 3; i++) {
    pinMode(PUMPS[i], OUTPUT);
  }
}

void loop() {
  // measure
  for (int i = 0; i < 3; i++) {
    int first = analogRead(SENSORS[i]);
    delay(5);
    int second = analogRead(SENSORS[i]);
    levels[i] = (first + second) / 2;
  }

  // switch the pumps
  for (int i = 0; i < 3; i++) {
    if (levels[i] > 600) {
      digitalWrite(PUMPS[i], HIGH);
    } else if (levels[i] < 300) {
      digitalWrite(PUMPS[i], LOW);
    }
  }

  // show it
  rounds++;
  Serial.print("round ");
  Serial.println(rounds);
  int highest = levels[0];
  for (int i = 1; i < 3; i++) {
    if (levels[i] > highest) {
      highest = levels[i];
    }
  }
  Serial.print("highest level ");
  Serial.println(highest);
  if (highest > 800) {
    Serial.println("call the station");
  }
  delay(1000);
}
