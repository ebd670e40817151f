// Everything that is read, as it is reported: a line when it changes, and when the host asks.
#pragma once
#include "saying.h"
#include "tables.h"
#include "contacts.h"
#if ENCODER_COUNT
#include "encoders.h"
#endif
#if LEVEL_COUNT || LADDER_COUNT
#include "levels.h"
#endif

// A selector that stands between two ways closes none: it is said to be nowhere only when it stays there (ms).
const uint16_t BETWEEN_WAYS = 250;
// In binary it reads as another one there.
const uint16_t BETWEEN_NUMBERS = 20;

int16_t inputSaid[INPUT_COUNT];
uint32_t betweenSince[INPUT_COUNT];

#if CONTACT_COUNT
// PATTERN: 1 for its first contact, 2 for the second, 4 for the third … added up. SELECTOR: the number of the way. BINARY:
// the same number, of which the contacts are the bits, counted from 0.
int16_t contactsOf(const Input &input) {
  int16_t value = 0;
  for (uint8_t n = 0; n < input.count; n++)
    if (contactClosed(input.first + n)) value = input.kind == SELECTOR ? n + 1 : value | 1 << n;
  return input.kind == BINARY ? value + 1 : value;
}
#endif

int32_t inputValue(const Input &input) {
#if CONTACT_COUNT
  if (input.kind <= BINARY) return contactsOf(input);
#endif
#if ENCODER_COUNT
  if (input.kind == TURN) return encoderTurned[input.first];
#endif
#if LEVEL_COUNT
  if (input.kind == LEVEL) return levelSaid[input.first];
#endif
#if LADDER_COUNT
  if (input.kind == LADDER) return ladderSaid[input.first];
#endif
  return 0;
}

void sayInput(const __FlashStringHelper *how, const Input &input) {
  say.print(how);
  say.print(input.name);
  say.print(' ');
  say.print(inputValue(input));
  say.end();
}

void inputsBegin() {
  networksBegin();
#if CONTACT_COUNT
  contactsBegin();
#endif
#if ENCODER_COUNT
  encodersBegin();
#endif
#if LEVEL_COUNT || LADDER_COUNT
  levelsBegin();
#endif
  for (uint8_t n = 0; n < INPUT_COUNT; n++) inputSaid[n] = inputValue(entry(INPUTS, n));
}

// Of an encoder: the detents since the last report, with their sign.
#if ENCODER_COUNT
void reportTurn(const Input &input, bool report) {
  int16_t detents = encoderTaken(input.first);
  if (!detents || !report) return;
  say.print(F("in "));
  say.print(input.name);
  say.print(detents > 0 ? F(" +") : F(" "));
  say.print(detents);
  say.end();
}
#endif

// Whether an input is to be reported, and has been taken note of.
bool inputChanged(uint8_t n, const Input &input) {
#if LEVEL_COUNT
  if (input.kind == LEVEL) return levelMoved(input.first);
#endif
#if LADDER_COUNT
  if (input.kind == LADDER) return ladderMoved(input.first);
#endif
  int16_t now = inputValue(input);
  if (now == inputSaid[n]) {
    betweenSince[n] = 0;
    return false;
  }
  uint16_t waits = input.kind == BINARY ? BETWEEN_NUMBERS : input.kind == SELECTOR && now == 0 ? BETWEEN_WAYS : 0;
  if (waits) {
    if (!betweenSince[n]) betweenSince[n] = millis() | 1;
    if (millis() - betweenSince[n] < waits) return false;
  }
  betweenSince[n] = 0;
  inputSaid[n] = now;
  return true;
}

// Once a millisecond: contacts are all looked at, voltages one at a time, since the converter takes its time.
void inputsRead(bool report) {
  static uint8_t voltage = 0;
  uint8_t voltages = 0;
  networksRead();
#if CONTACT_COUNT
  contactsRead();
#endif
  for (uint8_t n = 0; n < INPUT_COUNT; n++) {
    Input input = entry(INPUTS, n);
#if ENCODER_COUNT
    if (input.kind == TURN) {
      reportTurn(input, report);
      continue;
    }
#endif
    if ((input.kind == LEVEL || input.kind == LADDER) && voltages++ != voltage) continue;
    if (inputChanged(n, input) && report) sayInput(F("in "), input);
  }
  if (++voltage >= voltages) voltage = 0;
}
