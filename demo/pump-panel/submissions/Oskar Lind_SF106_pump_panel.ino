int level;
int pump = 4;
int mode = 0;

void setup() {
  pinMode(pump, OUTPUT);
  Serial.begin(9600);
}

void loop() {
  level = analogRead(A0);
  switch (mode) {
    case 0:
      digitalWrite(pump, LOW);
      Serial.print("mode ");
      Serial.println("off");
      delay(100);
      if (level > 600) {
        mode = 1;
      }
      break;
    case 1:
      digitalWrite(pump, HIGH);
      Serial.print("mode ");
      Serial.println("slow");
      delay(100);
      if (level > 800) {
        mode = 2;
      }
      break;
    case 2:
      digitalWrite(pump, HIGH);
      Serial.print("mode ");
      Serial.println("fast");
      delay(100);
      if (level < 300) {
        mode = 0;
      }
      break;
  }
}
