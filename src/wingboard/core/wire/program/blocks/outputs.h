// Lamps and loads: what each was set to, and what it shows. Between the two stand the lamp test, which lights every
// lamp, and the lost link, in which each goes to the state that the design says.
#pragma once
#include "tables.h"
#if DISPLAY_COUNT
#include "digits.h"
#endif
#if CHAIN_OUT_COUNT
#include "chains.h"
#endif
#if EXPANDER_COUNT
#include "expanders.h"
#endif
#if PIXEL_COUNT
#include "pixels.h"
#endif
#if GAUGE_COUNT
#include "gauges.h"
#endif

uint8_t outputSet[OUTPUT_COUNT];
// A lamp test that a host asked for, and one for which a contact here is closed.
bool testAsked = false;
bool testPressed = false;

bool lampTest() { return testAsked || testPressed; }

void outputDrive(const Output &output, uint8_t value) {
  if (output.kind >= TEXT) return;  // see displaysTest, and gaugesStep
#if CHAIN_OUT_COUNT
  if (output.where == ON_CHAIN) return chainSet(output.a, output.b, value);  // see outputsSent
#endif
#if EXPANDER_COUNT
  if (output.where == ON_EXPANDER) return expanderSet(output.a, output.b, value);
#endif
#if PIXEL_COUNT
  if (output.kind == COLOUR) return pixelSet(output.a, value);
#endif
  if (output.kind == DIMMED) {
    analogWrite(output.a, (uint16_t)value * output.most / 255);
  } else {
    digitalWrite(output.a, value ? HIGH : LOW);
  }
}

// What was set at chips and in chains is sent to them; expanders are told when they are read.
void outputsSent() {
#if PIXEL_COUNT
  pixelsWrite(lampTest());
#endif
#if CHAIN_OUT_COUNT
  chainsWrite();
#endif
}

// What an output shows now. A lamp test lights lamps, never a load; a load is off while the link is lost.
uint8_t outputShows(const Output &output, uint8_t set, bool linked) {
  if (output.kind == LOAD) return linked ? set : 0;
  if (lampTest()) return 255;
  if (!linked && output.lost == BLINK) return millis() & 256 ? 255 : 0;
  if (!linked && output.lost != HOLD) return output.lost;
  return set;
}

// Brings every output to what it is to show.
void outputsShow(bool linked) {
  for (Number n = 0; n < OUTPUT_COUNT; n++) {
    Output output = entry(OUTPUTS, n);
    uint8_t value = outputShows(output, outputSet[n], linked);
    outputDrive(output, value);
  }
  outputsSent();
#if DISPLAY_COUNT
  displaysTest(lampTest());
#endif
}

// A load that went off with the link stays off until a host sets it again.
void loadsForget() {
  for (Number n = 0; n < OUTPUT_COUNT; n++)
    if (entry(OUTPUTS, n).kind == LOAD) outputSet[n] = 0;
}

// Before anything else: every output is driven to its state of power-up, so that none floats for long.
void outputsBegin() {
#if PIXEL_COUNT
  pixelsBegin();
#endif
  for (Number n = 0; n < OUTPUT_COUNT; n++) {
    Output output = entry(OUTPUTS, n);
    if (output.kind >= TEXT) continue;
    outputSet[n] = output.kind == LOAD ? 0 : output.boot;
    if (output.where == ON_PIN) {
      digitalWrite(output.a, LOW);
      pinMode(output.a, OUTPUT);
    }
    outputDrive(output, outputSet[n]);
  }
#if CHAIN_OUT_COUNT
  chainsOutBegin();
#endif
#if PIXEL_COUNT
  pixelsWrite(lampTest());
#endif
#if DISPLAY_COUNT
  displaysBegin();
#endif
#if GAUGE_COUNT
  gaugesBegin();
#endif
}

#if TESTER_COUNT
#include "contacts.h"

// Contacts that light every lamp do so whether a host is there or not.
void outputsTest(bool linked) {
  bool pressed = false;
  for (Number n = 0; n < TESTER_COUNT; n++) pressed |= contactClosed(entry(TESTERS, n));
  if (pressed == testPressed) return;
  testPressed = pressed;
  outputsShow(linked);
}
#endif

#ifdef BLINKS
// What blinks while the link is lost does so twice a second, until a host answers.
void outputsBlink(bool linked) {
  static bool was = false;
  bool lit = millis() & 256;
  if (linked || lit == was) return;
  was = lit;
  outputsShow(linked);
}
#endif
