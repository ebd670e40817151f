// What the tables are made of. Everything here is the same on every board; what is on this one stands in tables.h.
#pragma once
#include <Arduino.h>
#if defined(__AVR__)
#include <avr/pgmspace.h>
#endif

// Where a contact is read, or something is driven.
enum Where : uint8_t { ON_PIN, ON_DISPLAY };

// A contact: on a pin of its own (`a` is the pin). `closed` is the level that its pin has while it is closed.
struct Contact {
  uint8_t where, a, b, closed;
};

// What an input says: the pattern of its contacts, the number of the one that is closed, steps, or a voltage.
enum InputKind : uint8_t { PATTERN, SELECTOR, TURN, LEVEL, LADDER };

// Something that is read. PATTERN and SELECTOR: `count` contacts from number `first` on. TURN, LEVEL and LADDER: the
// place in their own table.
struct Input {
  char name[LONGEST_NAME];
  uint8_t kind, first, count;
};

// Both channels of an encoder, by their pins.
struct Encoder {
  uint8_t a, b;
};

// A selector over resistors: its pin, the first of its windows, how many there are.
struct Ladder {
  uint8_t pin, first, count;
};

// A read-out on three wires: the place in its chain of `chained` drivers, its digits, how many of them stay dark.
struct Display {
  uint8_t data, clock, load, place, chained, digits, dark;
};

// What an output takes: how bright it is, from 0 to 255 (what cannot be dimmed is on from 1 on), 0 or 1 for a load, or
// letters. A load is never on while nobody answers for it.
enum OutputKind : uint8_t { LAMP, DIMMED, LOAD, TEXT };

// Something that is driven (`a` is the pin of ON_PIN, the number of the display of ON_DISPLAY). `boot`: its value from power-up on, `lost`: what it goes to when
// the link is lost, HOLD where it stays as it is.
struct Output {
  char name[LONGEST_NAME];
  uint8_t kind, where, a, b;
  int16_t boot, lost;
};
const int16_t HOLD = -1;
const uint8_t NO_LAMP = 255;

// Reads one entry of a table that lies in the program's memory.
template <typename T> T entry(const T *table, uint8_t n) {
  T found;
  memcpy_P(&found, table + n, sizeof found);
  return found;
}
