// Voltages: potentiometers and sliders, and selectors that are read over a ladder of resistors.
#pragma once
#include "tables.h"

// A potentiometer is reported once it moved further than it trembles.
const uint8_t TREMBLES = 3;
// A selector's voltage has to stay in one window for so many milliseconds.
const uint8_t LADDER_SETTLED = 20;

// The converter is let go over to the pin first: the reading before may have been of another one.
int16_t levelNow(uint8_t pin) {
  analogRead(pin);
  return analogRead(pin);
}

#if LEVEL_COUNT
int16_t levelSaid[LEVEL_COUNT];

// Whether a potentiometer is somewhere else than it was said to be. The ends are always reached.
bool levelMoved(Number n) {
  int16_t now = levelNow(entry(LEVELS, n));
  int16_t way = now - levelSaid[n];
  bool atEnd = (now == 0 || now == HIGHEST_LEVEL) && way != 0;
  if (way < TREMBLES && way > -TREMBLES && !atEnd) return false;
  levelSaid[n] = now;
  return true;
}
#endif

#if LADDER_COUNT
uint8_t ladderSaid[LADDER_COUNT];
uint8_t ladderSeen[LADDER_COUNT];
uint32_t ladderSince[LADDER_COUNT];

// The position whose window a reading is in: 1 for the first; windows follow each other, each up to its last reading.
uint8_t ladderPosition(const Ladder &ladder, int16_t reading) {
  for (Number n = 0; n < ladder.count; n++)
    if (reading <= (int16_t)entry(LADDER_ENDS, ladder.first + n)) return n + 1;
  return ladder.count;
}

// Whether a selector has come to rest in another window.
bool ladderMoved(Number n) {
  Ladder ladder = entry(LADDERS, n);
  uint8_t now = ladderPosition(ladder, levelNow(ladder.pin));
  if (now != ladderSeen[n]) {
    ladderSeen[n] = now;
    ladderSince[n] = millis();
  } else if (now != ladderSaid[n] && millis() - ladderSince[n] >= LADDER_SETTLED) {
    ladderSaid[n] = now;
    return true;
  }
  return false;
}
#endif

void levelsBegin() {
#if !defined(__AVR__)
  analogReadResolution(LEVEL_BITS);
#endif
#if LEVEL_COUNT
  for (Number n = 0; n < LEVEL_COUNT; n++) levelSaid[n] = levelNow(entry(LEVELS, n));
#endif
#if LADDER_COUNT
  for (Number n = 0; n < LADDER_COUNT; n++) {
    Ladder ladder = entry(LADDERS, n);
    ladderSaid[n] = ladderSeen[n] = ladderPosition(ladder, levelNow(ladder.pin));
  }
#endif
}
