// Debug output, off until a host asks for it: once a second how often everything was looked at, the longest time from one
// look to the next (microseconds), and what is left of the memory (bytes).
#pragma once
#include "saying.h"

bool noting = false;

#if defined(__AVR__)
extern char *__brkval;
extern char __heap_start;

uint16_t memoryLeft() {
  char here;
  return &here - (__brkval ? __brkval : &__heap_start);
}
#elif defined(ARDUINO_ARCH_RP2040)
uint32_t memoryLeft() { return rp2040.getFreeHeap(); }
#else
uint32_t memoryLeft() { return ESP.getFreeHeap(); }
#endif

// At every look.
void noteLook() {
  static uint16_t looks = 0;
  static uint32_t last = 0, longest = 0, said = 0;
  if (!noting) {
    looks = 0;
    return;
  }
  uint32_t now = micros();
  if (looks++ == 0) {
    said = millis();
    longest = 0;
  } else if (now - last > longest) {
    longest = now - last;
  }
  last = now;
  if (millis() - said < 1000) return;
  say.print(F("note looks "));
  say.print(looks);
  say.print(F(" longest "));
  say.print(longest);
  say.print(F(" left "));
  say.print(memoryLeft());
  say.end();
  looks = 0;
}

void hearDebug(const char *word) {
  if (strcmp(word, "on") && strcmp(word, "off")) return sayError(F("value"), word);
  noting = !strcmp(word, "on");
  say.print(F("is debug "));
  say.print(word);
  say.end();
}
