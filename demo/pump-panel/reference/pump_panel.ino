// Pump panel of the Saltmarsh field station: three basins, three pumps, one lamp each.

const int BASINS = 3;
const int SENSOR[] = {A0, A1, A2};
const int PUMP[] = {4, 5, 6};
const int LAMP[] = {9, 10, 11};
const int HIGH_WATER = 600;

bool running[BASINS];

// the mean of two measurements
int readLevel(int basin) {
  int first = analogRead(SENSOR[basin]);
  int second = analogRead(SENSOR[basin]);
  return (first + second) / 2;
}

void setPump(int basin, bool on) {
  digitalWrite(PUMP[basin], on ? HIGH : LOW);
  running[basin] = on;
}

void showState() {
  for (int basin = 0; basin < BASINS; basin++) {
    digitalWrite(LAMP[basin], running[basin] ? HIGH : LOW);
  }
}

void setup() {
  Serial.begin(9600);
  for (int basin = 0; basin < BASINS; basin++) {
    pinMode(PUMP[basin], OUTPUT);
    pinMode(LAMP[basin], OUTPUT);
  }
}

void loop() {
  for (int basin = 0; basin < BASINS; basin++) {
    setPump(basin, readLevel(basin) > HIGH_WATER);
  }
  showState();
  delay(1000);
}
