/* Pump panel with an alarm. Nadia Ferrow */
#include <Servo.h>

Servo gate;
const byte PUMP = 4;
const byte HORN = 7;
int alarms = 0;

int readLevel(int pin) {
  return analogRead(pin);
}

void setPump(bool on) {
  digitalWrite(PUMP, on ? HIGH : LOW);
}

void showState() {
  Serial.print("alarms so far: ");
  Serial.println(alarms);
}

void setup() {
  Serial.begin(9600);
  pinMode(PUMP, OUTPUT);
  pinMode(HORN, OUTPUT);
  gate.attach(3);

  // say that we are here
  tone(HORN, 440);
  delay(150);
  noTone(HORN);
  delay(100);
  tone(HORN, 550);
  delay(150);
  noTone(HORN);
  delay(100);
  tone(HORN, 660);
  delay(150);
  noTone(HORN);
  delay(100);
  tone(HORN, 770);
  delay(150);
  noTone(HORN);
  delay(100);
}

void loop() {
  int level = readLevel(A0);
  if (level > 800) {
    alarms++;
    setPump(true);
    gate.write(90);
  } else {
    setPump(false);
    gate.write(0);
  }
  showState();
  delay(1000);
}
