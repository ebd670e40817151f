// Expanders: MCP23017 on the bus of two wires, sixteen terminals each, port A in the lower byte, port B in the upper. The
// library Wire comes with every board's tools.
#pragma once
#include <Wire.h>
#include "saying.h"
#include "tables.h"

// Registers of port A; that of port B follows each (data sheet).
const uint8_t DIRECTIONS = 0x00, PULL_UPS = 0x0C, LEVELS_NOW = 0x12, LATCHES = 0x14;
// As slow as the bus goes: wires through a panel are long for it.
const uint32_t BUS_HERTZ = 100000;
// So often (ms) an expander is told again what it is, in case its supply failed for a moment.
const uint16_t REMIND = 500;

// Of each: its levels as they were read, those that it is to drive, whether they were sent, whether it answers.
uint16_t expanderIn[EXPANDER_COUNT];
uint16_t expanderOut[EXPANDER_COUNT];
bool expanderStale[EXPANDER_COUNT];
bool expanderThere[EXPANDER_COUNT];

void expanderSay(Number n) {
  say.print(expanderThere[n] ? F("mended") : F("fault"));
  say.print(F(" expander "));
  say.print(entry(EXPANDERS, n).address, HEX);
  say.end();
}

// Writes a register of both ports; false where nothing answers.
bool expanderWrite(const Expander &expander, uint8_t where, uint16_t word) {
  Wire.beginTransmission(expander.address);
  Wire.write(where);
  Wire.write((uint8_t)(word & 0xFF));
  Wire.write((uint8_t)(word >> 8));
  return Wire.endTransmission() == 0;
}

// What it drives comes first, so that no lamp flashes when its terminals turn to outputs.
bool expanderTell(Number n) {
  Expander expander = entry(EXPANDERS, n);
  expanderStale[n] = false;
  return expanderWrite(expander, LATCHES, expanderOut[n]) && expanderWrite(expander, DIRECTIONS, expander.inputs) &&
         expanderWrite(expander, PULL_UPS, expander.inputs);
}

// Reads two bytes from a register on.
bool expanderAsk(const Expander &expander, uint8_t where, uint16_t &word) {
  Wire.beginTransmission(expander.address);
  Wire.write(where);
  if (Wire.endTransmission(false)) return false;
  if (Wire.requestFrom(expander.address, (uint8_t)2) != 2) return false;
  word = Wire.read();
  word |= (uint16_t)Wire.read() << 8;
  return true;
}

// A level that changed is believed only of an expander whose pull-ups are still on: after a moment without its supply they
// are off, and its terminals read anything.
bool expanderRead(Number n) {
  Expander expander = entry(EXPANDERS, n);
  if (expanderStale[n]) {
    if (!expanderWrite(expander, LATCHES, expanderOut[n])) return false;
    expanderStale[n] = false;
  }
  if (!expander.reads) return true;
  uint16_t levels, pulled;
  if (!expanderAsk(expander, LEVELS_NOW, levels)) return false;
  if (levels == expanderIn[n]) return true;
  if (!expanderAsk(expander, PULL_UPS, pulled)) return false;
  if (pulled != expander.inputs) return expanderTell(n);
  expanderIn[n] = levels;
  return true;
}

bool expanderLow(Number n, uint8_t bit) { return !(expanderIn[n] >> bit & 1); }

void expanderSet(Number n, uint8_t bit, bool on) {
  uint16_t was = expanderOut[n];
  if (on) expanderOut[n] |= 1 << bit;
  else expanderOut[n] &= ~(1 << bit);
  if (expanderOut[n] != was) expanderStale[n] = true;
}

// Once a millisecond, or as often as the bus lets. One that does not answer keeps what it was read as, and is tried again
// only now and then; that it does not is said once a host is there.
void expandersRead(bool linked) {
  static uint16_t reminded = 0;
  static bool told = false;
  bool remind = (uint16_t)((uint16_t)millis() - reminded) >= REMIND;
  if (remind) reminded = millis();
  for (Number n = 0; n < EXPANDER_COUNT; n++) {
    bool was = expanderThere[n];
    if (remind) expanderThere[n] = expanderTell(n);
    if (expanderThere[n]) expanderThere[n] = expanderRead(n);
    if (linked && (told ? was != expanderThere[n] : !expanderThere[n])) expanderSay(n);
  }
  told = linked;
}

void expandersBegin() {
#if defined(__AVR__)
  Wire.begin();
#elif defined(ARDUINO_ARCH_RP2040)
  Wire.setSDA(BUS_SDA);
  Wire.setSCL(BUS_SCL);
  Wire.begin();
#else
  Wire.begin(BUS_SDA, BUS_SCL);
#endif
  Wire.setClock(BUS_HERTZ);
#if defined(WIRE_HAS_TIMEOUT)
  Wire.setWireTimeout(3000, true);  // a wire of the bus on ground must not stop everything else
#endif
  for (Number n = 0; n < EXPANDER_COUNT; n++) {
    expanderIn[n] = 0xFFFF;
    expanderThere[n] = expanderTell(n) && expanderRead(n);
  }
}
