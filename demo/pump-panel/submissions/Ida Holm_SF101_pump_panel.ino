// Pump panel, Ida Holm

const int BASINS = 3;
const int sensorPins[] = {A0, A1, A2};
const int pumpPins[] = {4, 5, 6};
const int lampPins[] = {9, 10, 11};

bool running[BASINS];

// one measurement, 0 dry to 1023 full
int readLevel(int basin) {
  return analogRead(sensorPins[basin]);
}

void setPump(int basin, bool on) {
  digitalWrite(pumpPins[basin], on);
  running[basin] = on;
}

// a lamp for each pump that runs
void showState() {
  for (int i = 0; i < BASINS; i++) {
    digitalWrite(lampPins[i], running[i]);
  }
}

void setup() {
  for (int i = 0; i < BASINS; i++) {
    pinMode(pumpPins[i], OUTPUT);
    pinMode(lampPins[i], OUTPUT);
  }
}

void loop() {
  for (int i = 0; i < BASINS; i++) {
    int level = readLevel(i);
    if (level > 600) {
      setPump(i, true);
    } else if (level < 300) {
      setPump(i, false);
    }
  }
  showState();
  delay(500);
}
