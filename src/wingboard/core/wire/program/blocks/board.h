// What the tables are made of. Everything here is the same on every board; what is on this one stands in tables.h.
#pragma once
#include <Arduino.h>
#if defined(__AVR__)
#include <avr/pgmspace.h>
#endif

// Counts what is on this board.
#ifdef MANY_THINGS
typedef uint16_t Number;
#else
typedef uint8_t Number;
#endif

// Where a contact is read, or something is driven.
enum Where : uint8_t {
  ON_PIN,
  IN_MATRIX,
  IN_CHAIN,
  IN_EXPANDER,
  ON_CHAIN,
  ON_EXPANDER,
  ON_PIXELS,
  ON_GAUGE,
  ON_DISPLAY
};

// A contact: on a pin of its own (`a` is the pin), in a row and a column of a matrix, or at a chip of a chain (or an
// expander) and one of its bits. `closed` is the level there while it is closed.
struct Contact {
  uint8_t where;
  Number a;
  uint8_t b, closed;
};

// What an input says: the pattern of its contacts, the number of the one that is closed, that number in binary, steps, or
// a voltage.
enum InputKind : uint8_t { PATTERN, SELECTOR, BINARY, TURN, LEVEL, LADDER };

// Something that is read. PATTERN, SELECTOR and BINARY: `count` contacts from number `first` on. TURN, LEVEL and LADDER: the
// place in their own table.
struct InputHow {
  uint8_t kind;
  Number first, count;
};
struct Input {
  char name[LONGEST_NAME];
  InputHow how;
};

// A row of a matrix: its pin, the first of its columns, how many it has.
struct MatrixRow {
  uint8_t pin, first, columns;
};

// A chain of shift registers: its pins (the third is the load or the latch), the first of its chips, how many.
struct Chain {
  uint8_t data, clock, third, first, chips;
};

// A chip on the bus: which of its terminals are inputs (a bit each), and whether any of them is read.
struct Expander {
  uint8_t address;
  uint16_t inputs;
  bool reads;
};

// The pins of an encoder's channels.
struct Encoder {
  uint8_t a, b;
};

// A selector over resistors: its pin, the first of its windows, how many there are.
struct Ladder {
  uint8_t pin;
  Number first;
  uint8_t count;
};

// A wire that is not there.
const uint8_t NO_PIN = 255;

// A read-out on three wires: the place in its chain of `chained` drivers, its digits, how many of them stay dark. One on
// two wires has no load.
struct Display {
  uint8_t data, clock, load, place, chained, digits, dark;
};

// Addressable lamps that show the same: the pin of their chain, how many they are, their colour as red, green and blue.
struct Pixel {
  uint8_t pin;
  uint16_t leds;
  uint8_t colour[3];
};

// The pins of a gauge's two coils, as its terminals are numbered.
struct Gauge {
  uint8_t pins[4];
};

// A pin that the design gives to nothing, with its name on the board.
struct FreePin {
  char name[5];
  uint8_t pin;
};

// What an output takes: how bright it is, from 0 to 255 (what cannot be dimmed is on from 1 on), 0 or 1 for a load, or
// letters, or the steps of a needle from its stop. A load is never on while nobody answers for it.
// A sounder is one too.
enum OutputKind : uint8_t { LAMP, DIMMED, COLOUR, LOAD, TEXT, NEEDLE };

// Something that is driven: `a` is its pin, its chip (with its bit `b`), or its number among the addressable lamps or the
// read-outs. `most`: of 255, what a lamp that is dimmed gets when it is set to 255. `boot`: its value from power-up on, `lost`: what it goes to when the link is lost: HOLD where it stays as it
// is, BLINK where it says so.
struct Output {
  char name[LONGEST_NAME];
  uint8_t kind, where;
  Number a;
  uint8_t b, most;
  int16_t boot, lost;
};
const int16_t HOLD = -1;
const int16_t BLINK = -2;

// Reads one entry of a table that lies in the program's memory.
template <typename T> T entry(const T *table, Number n) {
  T found;
  memcpy_P(&found, table + n, sizeof found);
  return found;
}
