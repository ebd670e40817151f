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
uint16_t betweenSince[INPUT_COUNT];

#if CONTACT_COUNT
// PATTERN: 1 for its first contact, 2 for the second, 4 for the third … added up. SELECTOR: the number of the way. BINARY:
// the same number, of which the contacts are the bits, counted from 0.
int16_t contactsOf(const InputHow &input) {
  int16_t value = 0;
  for (Number n = 0; n < input.count; n++)
    if (contactClosed(input.first + n)) value = input.kind == SELECTOR ? n + 1 : value | 1 << n;
  return input.kind == BINARY ? value + 1 : value;
}
#endif

int32_t inputValue(const InputHow &input) {
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

// How an input is read; its name is left where it is, for it takes longest to fetch.
InputHow inputAt(Number n) {
  InputHow found;
  memcpy_P(&found, &INPUTS[n].how, sizeof found);
  return found;
}

void sayInputName(Number n) { say.print((const __FlashStringHelper *)INPUTS[n].name); }

void sayInput(const __FlashStringHelper *how, Number n) {
  say.print(how);
  sayInputName(n);
  say.print(' ');
  say.print(inputValue(inputAt(n)));
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
  for (Number n = 0; n < INPUT_COUNT; n++) inputSaid[n] = inputValue(inputAt(n));
}

// Of an encoder: the detents since the last report, with their sign.
#if ENCODER_COUNT
void reportTurn(Number n, const InputHow &input, bool report) {
  int16_t detents = encoderTaken(input.first);
  if (!detents || !report) return;
  say.print(F("in "));
  sayInputName(n);
  say.print(detents > 0 ? F(" +") : F(" "));
  say.print(detents);
  say.end();
}
#endif

// Whether an input is to be reported, and has been taken note of.
bool inputChanged(Number n, const InputHow &input) {
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
    uint16_t time = millis();
    if (!betweenSince[n]) betweenSince[n] = (time - 1) | 1;  // now or just before, and never 0
    if ((uint16_t)(time - betweenSince[n]) < waits) return false;
  }
  betweenSince[n] = 0;
  inputSaid[n] = now;
  return true;
}

// So many milliseconds after the last time: contacts are all looked at, voltages one at a time, since the converter takes its time.
void inputsRead(bool report, uint8_t passed) {
  (void)passed;  // of a board without contacts
  static uint8_t voltage = 0;
  uint8_t voltages = 0;
  networksRead();
#if CONTACT_COUNT
  // Where no contact moved, and none is waited for, only what stands behind those with contacts is asked.
  static bool waiting = false;
  Number first = contactsRead(passed) || waiting ? 0 : CONTACT_INPUTS;
  waiting = false;
#else
  const Number first = 0;
#endif
  for (Number n = first; n < INPUT_COUNT; n++) {
    InputHow input = inputAt(n);
#if ENCODER_COUNT
    if (input.kind == TURN) {
      reportTurn(n, input, report);
      continue;
    }
#endif
    if ((input.kind == LEVEL || input.kind == LADDER) && voltages++ != voltage) continue;
    if (inputChanged(n, input) && report) sayInput(F("in "), n);
#if CONTACT_COUNT
    waiting |= betweenSince[n] != 0;
#endif
  }
  if (++voltage >= voltages) voltage = 0;
}
