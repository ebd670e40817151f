// Chains of shift registers: 74HC165 take in eight contacts each, 74HC595 drive eight lamps each, over three pins.
#pragma once
#include "tables.h"

#if CHAIN_IN_COUNT
// A byte for each chip, its input A at the lowest bit.
uint8_t chainIn[CHAIN_IN_CHIPS];

bool chainLow(uint8_t chip, uint8_t bit) { return !(chainIn[chip] >> bit & 1); }

// Where a pin is written or read, without asking its number again each time. Nothing here that interrupts writes a port.
#if defined(__AVR__)
struct Quick {
  volatile uint8_t *out, *in;
  uint8_t bit;
};

Quick quick(uint8_t pin) {
  uint8_t port = digitalPinToPort(pin);
  return {portOutputRegister(port), portInputRegister(port), digitalPinToBitMask(pin)};
}

void quickPulse(const Quick &pin) {
  *pin.out |= pin.bit;
  *pin.out &= ~pin.bit;
}

bool quickRead(const Quick &pin) { return *pin.in & pin.bit; }
#else
typedef uint8_t Quick;

Quick quick(uint8_t pin) { return pin; }

void quickPulse(Quick pin) {
  digitalWrite(pin, HIGH);
  digitalWrite(pin, LOW);
}

bool quickRead(Quick pin) { return digitalRead(pin); }
#endif

// All inputs are taken at once when the load goes low; then they come out bit by bit, input H of the first chip first.
void chainsRead() {
  for (Number n = 0; n < CHAIN_IN_COUNT; n++) {
    Chain chain = entry(CHAINS_IN, n);
    digitalWrite(chain.third, LOW);
    digitalWrite(chain.third, HIGH);
    Quick data = quick(chain.data), clock = quick(chain.clock);
    for (uint8_t chip = 0; chip < chain.chips; chip++) {
      uint8_t bits = 0;
      for (uint8_t bit = 0; bit < 8; bit++) {
        bits = bits << 1 | quickRead(data);
        quickPulse(clock);
      }
      chainIn[chain.first + chip] = bits;
    }
  }
}

void chainsInBegin() {
  for (Number n = 0; n < CHAIN_IN_COUNT; n++) {
    Chain chain = entry(CHAINS_IN, n);
    pinMode(chain.data, INPUT);
    pinMode(chain.clock, OUTPUT);
    digitalWrite(chain.third, HIGH);
    pinMode(chain.third, OUTPUT);
  }
  chainsRead();
}
#endif

#if CHAIN_OUT_COUNT
// A byte for each chip, its output QA at the lowest bit.
uint8_t chainOut[CHAIN_OUT_CHIPS];

void chainSet(uint8_t chip, uint8_t bit, bool on) {
  if (on) chainOut[chip] |= 1 << bit;
  else chainOut[chip] &= ~(1 << bit);
}

// What is for the last chip goes first; all outputs change at once when the latch rises.
void chainsWrite() {
  for (Number n = 0; n < CHAIN_OUT_COUNT; n++) {
    Chain chain = entry(CHAINS_OUT, n);
    digitalWrite(chain.third, LOW);
    for (uint8_t chip = chain.chips; chip-- > 0;) shiftOut(chain.data, chain.clock, MSBFIRST, chainOut[chain.first + chip]);
    digitalWrite(chain.third, HIGH);
  }
}

void chainsOutBegin() {
  for (Number n = 0; n < CHAIN_OUT_COUNT; n++) {
    Chain chain = entry(CHAINS_OUT, n);
    pinMode(chain.data, OUTPUT);
    pinMode(chain.clock, OUTPUT);
    pinMode(chain.third, OUTPUT);
  }
  chainsWrite();
}
#endif
