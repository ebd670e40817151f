// Discovery: to find out what hangs on pins of which nothing is known. Pins that the design gives to something are never
// touched. Free ones are inputs with their pull-up on; each change is said, and one can be driven to see what it moves.
#pragma once
#include "saying.h"
#include "tables.h"

const uint8_t FREE_SETTLED = 8;

bool discovering = false;
// Of each free pin: its level (highest bit), whether it is driven (next), and for how many milliseconds it differs.
uint8_t freeState[FREE_COUNT];

void sayFree(Number n) {
  FreePin free = entry(FREE_PINS, n);
  say.print(F("pin "));
  say.print(free.name);
  say.print(freeState[n] & 0x80 ? F(" 1") : F(" 0"));
  say.end();
}

void freeLetGo(Number n) {
  pinMode(entry(FREE_PINS, n).pin, discovering ? INPUT_PULLUP : INPUT);
  freeState[n] = discovering ? 0x80 : 0;
}

// The free pin that is to be said next; FREE_COUNT where none is.
uint8_t freeNext = FREE_COUNT;

void discover(bool on) {
  discovering = on;
  freeNext = FREE_COUNT;
  for (Number n = 0; n < FREE_COUNT; n++) freeLetGo(n);
  if (!on) return;
  delay(2);
  for (Number n = 0; n < FREE_COUNT; n++) freeState[n] = digitalRead(entry(FREE_PINS, n).pin) ? 0x80 : 0;
}

// Once a millisecond.
void discoveryRead() {
  if (!discovering) return;
  for (Number n = 0; n < FREE_COUNT; n++) {
    if (freeState[n] & 0x40) continue;
    bool high = digitalRead(entry(FREE_PINS, n).pin);
    if (high == (bool)(freeState[n] & 0x80)) {
      freeState[n] &= 0x80;
    } else if ((++freeState[n] & 0x3F) >= FREE_SETTLED) {
      freeState[n] = high ? 0x80 : 0;
      sayFree(n);
    }
  }
}

void sayDiscovering() {
  say.print(F("is discover "));
  say.print(discovering ? F("on") : F("off"));
  say.end();
}

void hearDiscover(const char *word) {
  if (strcmp(word, "on") && strcmp(word, "off")) return sayError(F("value"), word);
  discover(!strcmp(word, "on"));
  if (discovering) freeNext = 0;
  else sayDiscovering();
}

// Free pins are said a line at a time, as fast as the port takes it; false once all are.
bool discoveryList() {
  if (freeNext == FREE_COUNT) return false;
  while (Serial.availableForWrite() > 20) {
    sayFree(freeNext++);
    if (freeNext < FREE_COUNT) continue;
    sayDiscovering();
    break;
  }
  return true;
}

// 0 and 1 drive a pin, - lets it go.
void hearDrive(const char *name, const char *word) {
  if (!discovering) return sayError(F("discover"), "");
  for (Number n = 0; n < FREE_COUNT; n++) {
    FreePin free = entry(FREE_PINS, n);
    if (strcmp(free.name, name)) continue;
    if (!strcmp(word, "-")) {
      freeLetGo(n);
    } else if (!strcmp(word, "0") || !strcmp(word, "1")) {
      digitalWrite(free.pin, *word == '1' ? HIGH : LOW);
      pinMode(free.pin, OUTPUT);
      freeState[n] = *word == '1' ? 0xC0 : 0x40;
    } else {
      return sayError(F("value"), word);
    }
    say.print(F("is pin "));
    say.print(name);
    say.print(' ');
    say.print(word);
    return say.end();
  }
  sayError(F("pin"), name);
}
