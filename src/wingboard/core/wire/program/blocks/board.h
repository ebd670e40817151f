// What the tables are made of. Everything here is the same on every board; what is on this one stands in tables.h.
#pragma once
#include <Arduino.h>
#if defined(__AVR__)
#include <avr/pgmspace.h>
#endif

// Where a contact is read, or something is driven.
enum Where : uint8_t { ON_PIN, IN_MATRIX, IN_CHAIN, ON_CHAIN, ON_DISPLAY };

// A contact: on a pin of its own (`a` is the pin), in a row and a column of a matrix, or at a chip of a chain and one of
// its bits. `closed` is the level there while it is closed.
struct Contact {
  uint8_t where, a, b, closed;
};

// What an input says: the pattern of its contacts, the number of the one that is closed, that number in binary, steps, or
// a voltage.
enum InputKind : uint8_t { PATTERN, SELECTOR, BINARY, TURN, LEVEL, LADDER };

// Something that is read. PATTERN, SELECTOR and BINARY: `count` contacts from number `first` on. TURN, LEVEL and LADDER: the
// place in their own table.
struct Input {
  char name[LONGEST_NAME];
  uint8_t kind, first, count;
};

// A row of a matrix: its pin, the first of its columns, how many it has.
struct MatrixRow {
  uint8_t pin, first, columns;
};

// A chain of shift registers: its pins (the third is the load or the latch), the first of its chips, how many.
struct Chain {
  uint8_t data, clock, third, first, chips;
};

// Both channels of an encoder.
struct Encoder {
  Contact a, b;
};

// A selector over resistors: its pin, the first of its windows, how many there are.
struct Ladder {
  uint8_t pin, first, count;
};

// A read-out on three wires: the place in its chain of `chained` drivers, its digits, how many of them stay dark.
struct Display {
  uint8_t data, clock, load, place, chained, digits, dark;
};

// A pin that the design gives to nothing, with its name on the board.
struct FreePin {
  char name[5];
  uint8_t pin;
};

// What an output takes: how bright it is, from 0 to 255 (what cannot be dimmed is on from 1 on), 0 or 1 for a load, or
// letters. A load is never on while nobody answers for it.
enum OutputKind : uint8_t { LAMP, DIMMED, LOAD, TEXT };

// Something that is driven (`a` is the pin of ON_PIN, the chip of ON_CHAIN with its bit `b`, the number of a display). `boot`: its value from power-up on, `lost`: what it goes to when
// the link is lost: HOLD where it stays as it is, BLINK where it says so.
struct Output {
  char name[LONGEST_NAME];
  uint8_t kind, where, a, b;
  int16_t boot, lost;
};
const int16_t HOLD = -1;
const int16_t BLINK = -2;

// Reads one entry of a table that lies in the program's memory.
template <typename T> T entry(const T *table, uint8_t n) {
  T found;
  memcpy_P(&found, table + n, sizeof found);
  return found;
}
