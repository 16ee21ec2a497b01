// A board that writes down what a sketch does to it: each pin that is set, each wait, each line sent.
// Measurements come in a fixed order. setup() runs once, loop() three times.
#include <cstdint>
#include <cstdio>
#include <string>

typedef bool boolean;
typedef uint8_t byte;
#define HIGH 1
#define LOW 0
#define INPUT 0
#define OUTPUT 1
#define INPUT_PULLUP 2
#define LED_BUILTIN 13
#define F(text) text
enum { A0 = 14, A1, A2, A3, A4, A5 };

static long asked = 0;
static long now = 0;

inline void note(const char *what, long a, long b) { printf("%s %ld %ld\n", what, a, b); }
inline void pinMode(int pin, int mode) { note("mode", pin, mode); }
inline void digitalWrite(int pin, int level) { note("set", pin, level); }
inline void analogWrite(int pin, int level) { note("level", pin, level); }
inline int digitalRead(int pin) { note("look", pin, 0); return (++asked / 3) % 2; }
inline int analogRead(int pin) { note("measure", pin, 0); return (++asked * 137) % 1024; }
inline void delay(unsigned long pause) { now += pause; note("wait", pause, 0); }
inline unsigned long millis() { return now += 7; }
inline void tone(int pin, int pitch, long time = 0) { note("tone", pin, pitch + time); }
inline void noTone(int pin) { note("quiet", pin, 0); }
inline long map(long x, long a, long b, long c, long d) { return (x - a) * (d - c) / (b - a) + c; }
template <class T> T constrain(T x, T low, T high) { return x < low ? low : x > high ? high : x; }
template <class T> T abs(T x) { return x < 0 ? -x : x; }

struct Line {
  void begin(long speed) { note("begin", speed, 0); }
  void print(const char *text) { printf("%s", text); }
  void print(char letter) { printf("%c", letter); }
  void print(long number) { printf("%ld", number); }
  void print(int number) { printf("%d", number); }
  void print(unsigned long number) { printf("%lu", number); }
  void print(double number) { printf("%.2f", number); }
  template <class T> void println(T value) { print(value); printf("\n"); }
  void println() { printf("\n"); }
};
static Line Serial;

void setup();
void loop();

int main() {
  setup();
  for (int turn = 0; turn < 3; turn++) loop();
}
