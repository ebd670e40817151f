// Read-outs: MAX7219 drivers on three wires, alone or one behind the other. Letters are made here, segment by segment, so
// that a minus, a blank and words of few letters can be shown.
#pragma once
#include "tables.h"
#ifdef ON_TWO_WIRES
#include "twowires.h"
#endif

const uint8_t MOST_DIGITS = 8;
// Registers of the driver (data sheet).
enum Register : uint8_t { NOTHING = 0, DECODE = 9, BRIGHT = 10, SCAN = 11, AWAKE = 12, TEST = 15 };
const uint8_t BRIGHTNESS = 7;  // of 15

// What each shows: its letters, with a point counted as one, and its segments, the digit at the right first.
char displayShows[DISPLAY_COUNT][2 * MOST_DIGITS + 1];
uint8_t displaySegments[DISPLAY_COUNT][MOST_DIGITS];

// Segments of the letters from blank on: the point, then A to G from the highest bit down.
const uint8_t SEGMENTS[] PROGMEM = {
    0x00, 0xA0, 0x22, 0x00, 0x5B, 0x00, 0x00, 0x02, 0x4E, 0x78, 0x00, 0x07, 0x00, 0x01, 0x80, 0x25,  //  !"# to /
    0x7E, 0x30, 0x6D, 0x79, 0x33, 0x5B, 0x5F, 0x70, 0x7F, 0x7B, 0x00, 0x00, 0x0D, 0x09, 0x19, 0x65,  // 0 to ?
    0x00, 0x77, 0x1F, 0x4E, 0x3D, 0x4F, 0x47, 0x5E, 0x37, 0x06, 0x3C, 0x57, 0x0E, 0x54, 0x15, 0x1D,  // @ to O
    0x67, 0x73, 0x05, 0x5B, 0x0F, 0x3E, 0x1C, 0x2A, 0x37, 0x3B, 0x6D, 0x4E, 0x13, 0x78, 0x62, 0x08,  // P to _
};

uint8_t segmentsOf(char letter) {
  if (letter >= 'a' && letter <= 'z') letter -= 'a' - 'A';
  return letter < ' ' || letter > '_' ? 0 : entry(SEGMENTS, letter - ' ');
}

// Sends one register to one driver of a chain; the others get a word that changes nothing. What is sent first goes on to
// the last of the chain.
void displaySend(const Display &display, uint8_t where, uint8_t value) {
  digitalWrite(display.load, LOW);
  for (Number n = display.chained; n-- > 0;) {
    shiftOut(display.data, display.clock, MSBFIRST, n == display.place ? where : (uint8_t)NOTHING);
    shiftOut(display.data, display.clock, MSBFIRST, n == display.place ? value : 0);
  }
  digitalWrite(display.load, HIGH);
}

// Brings what it is to show to a display.
void displayPut(Number n, const Display &display) {
#ifdef ON_TWO_WIRES
  if (display.load == NO_PIN) return pairShow(display, displaySegments[n]);
#endif
  // Digit 1 of the driver is the one at the right.
  for (uint8_t digit = 0; digit < display.digits; digit++) displaySend(display, digit + 1, displaySegments[n][digit]);
}

const char *displayText(Number n) { return displayShows[n]; }

// Shows some letters, to the right; none blanks it. False where they do not fit, or where one cannot be shown.
bool displayShow(Number n, const char *text) {
  Display display = entry(DISPLAYS, n);
  uint8_t made[MOST_DIGITS];
  uint8_t count = 0;
  for (const char *letter = text; *letter; letter++) {
    if (*letter == '.' && count && !(made[count - 1] & 0x80)) {
      made[count - 1] |= 0x80;
      continue;
    }
    if (count == display.digits - display.dark || (*letter != '_' && *letter != '-' && !segmentsOf(*letter)))
      return false;
    made[count++] = segmentsOf(*letter);
  }
  strcpy(displayShows[n], text);
  for (uint8_t digit = 0; digit < MOST_DIGITS; digit++)
    displaySegments[n][digit] = digit < count ? made[count - 1 - digit] : 0;
  displayPut(n, display);
  return true;
}

// All segments, whatever each shows.
void displaysTest(bool on) {
#ifdef ON_TWO_WIRES
  static bool tested = false;
#endif
  for (Number n = 0; n < DISPLAY_COUNT; n++) {
    Display display = entry(DISPLAYS, n);
#ifdef ON_TWO_WIRES
    const uint8_t ALL[MOST_DIGITS] = {0xFF, 0xFF, 0xFF, 0xFF, 0xFF, 0xFF, 0xFF, 0xFF};
    if (display.load == NO_PIN) {
      if (on != tested) pairShow(display, on ? ALL : displaySegments[n]);
      continue;
    }
#endif
    displaySend(display, TEST, on);
  }
#ifdef ON_TWO_WIRES
  tested = on;
#endif
}

void displaysBegin() {
  for (Number n = 0; n < DISPLAY_COUNT; n++) {
    Display display = entry(DISPLAYS, n);
    digitalWrite(display.clock, HIGH);
    digitalWrite(display.data, HIGH);
    pinMode(display.data, OUTPUT);
    pinMode(display.clock, OUTPUT);
    if (display.load == NO_PIN) continue;
    digitalWrite(display.load, HIGH);
    pinMode(display.load, OUTPUT);
  }
  for (Number n = 0; n < DISPLAY_COUNT; n++) {
    Display display = entry(DISPLAYS, n);
    if (display.load == NO_PIN) {
      displayShow(n, "");
      continue;
    }
    displaySend(display, TEST, 0);
    displaySend(display, DECODE, 0);
    displaySend(display, SCAN, display.digits - 1);
    displaySend(display, BRIGHT, BRIGHTNESS);
    displayShow(n, "");
    displaySend(display, AWAKE, 1);
  }
}
