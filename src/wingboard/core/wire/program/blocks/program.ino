// The program of one board: what is read and driven stands in tables.h, how that is done in the other files.
// Load it with the usual tools: open this folder, choose the board, and write it.
#include "tables.h"
#include "link.h"

void setup() {
#if OUTPUT_COUNT
  outputsBegin();
#endif
#if EXPANDER_COUNT
  expandersBegin();
#endif
  Serial.begin(115200);
#if INPUT_COUNT
  inputsBegin();
#endif
  linkChanged();
  sayHello();
}

void loop() {
  static uint16_t lastTick = 0;
  linkRead();
  uint16_t now = millis();
  if (now == lastTick) return;
#if INPUT_COUNT
  uint16_t passed = now - lastTick;  // milliseconds
#endif
  lastTick = now;
  noteLook();
#if EXPANDER_COUNT
  expandersRead(linked);
#endif
#if INPUT_COUNT
  inputsRead(linked, passed < 50 ? passed : 50);
#endif
#if TESTER_COUNT && OUTPUT_COUNT
  outputsTest(linked);
#endif
#if GAUGE_COUNT
  gaugesStep();
#endif
#ifdef BLINKS
  outputsBlink(linked);
#endif
#if FREE_COUNT
  discoveryRead();
#endif
}
