// Read-outs on two wires: TM1637, whose digits are counted from the left. A word begins where the data falls while the
// clock is up, and ends where it rises so; each byte goes lowest bit first, and is answered by the driver.
#pragma once
#include "tables.h"

// Commands (data sheet): data by rising address, the first address, on with so much of 7.
const uint8_t PAIR_DATA = 0x40, PAIR_FIRST = 0xC0, PAIR_ON = 0x88, PAIR_BRIGHT = 4;
// Half a period of its clock (microseconds).
const uint8_t PAIR_HALF = 5;

void pairWire(uint8_t pin, bool level) {
  digitalWrite(pin, level);
  delayMicroseconds(PAIR_HALF);
}

void pairStart(const Display &display) {
  pairWire(display.data, HIGH);
  pairWire(display.clock, HIGH);
  pairWire(display.data, LOW);
  pairWire(display.clock, LOW);
}

void pairEnd(const Display &display) {
  pairWire(display.data, LOW);
  pairWire(display.clock, HIGH);
  pairWire(display.data, HIGH);
}

void pairByte(const Display &display, uint8_t byte) {
  for (uint8_t bit = 0; bit < 8; bit++, byte >>= 1) {
    pairWire(display.data, byte & 1);
    pairWire(display.clock, HIGH);
    pairWire(display.clock, LOW);
  }
  digitalWrite(display.data, LOW);
  pinMode(display.data, INPUT);  // the driver answers here
  pairWire(display.clock, HIGH);
  pairWire(display.clock, LOW);
  pinMode(display.data, OUTPUT);
}

void pairCommand(const Display &display, uint8_t command) {
  pairStart(display);
  pairByte(display, command);
  pairEnd(display);
}

// Here segment A is the lowest bit, G the seventh; there it is the other way round. The point is the highest in both.
uint8_t pairSegments(uint8_t segments) {
  uint8_t turned = segments & 0x80;
  for (Number n = 0; n < 7; n++)
    if (segments >> n & 1) turned |= 1 << (6 - n);
  return turned;
}

// Shows segments, those of the digit at the right first.
void pairShow(const Display &display, const uint8_t *segments) {
  pairCommand(display, PAIR_DATA);
  pairStart(display);
  pairByte(display, PAIR_FIRST);
  for (uint8_t digit = display.digits; digit-- > 0;) pairByte(display, pairSegments(segments[digit]));
  pairEnd(display);
  pairCommand(display, PAIR_ON | PAIR_BRIGHT);
}
