// Encoders, each on two pins of its own: both channels are looked at 1,950 times a second, in an interrupt, so that nothing
// else that the program does can lose a step. One detent is four changes of the two channels; of an encoder that rests with
// both closed at every other detent it is two.
#pragma once
#include "tables.h"

const uint8_t CHANGES_A_DETENT = 4;

// The changes since the last detent, and the detents that were not reported yet.
volatile int8_t encoderChanges[ENCODER_COUNT];
volatile int16_t encoderDetents[ENCODER_COUNT];
uint8_t encoderLast[ENCODER_COUNT];
int32_t encoderTurned[ENCODER_COUNT];

// From the two channels before (upper two bits) and now: one change onward, one back, or none. Two changes at once
// cannot be told from none.
const int8_t ENCODER_STEP[16] = {0, -1, 1, 0, 1, 0, 0, -1, -1, 0, 0, 1, 0, 1, -1, 0};

#if defined(__AVR__)
// Where the two pins are read: a register and a bit of it, which is ten times faster than by the pin's number.
volatile uint8_t *encoderPort[ENCODER_COUNT][2];
uint8_t encoderBit[ENCODER_COUNT][2];

bool encoderClosed(Number n, uint8_t channel) { return !(*encoderPort[n][channel] & encoderBit[n][channel]); }

void encoderFind(Number n, uint8_t channel, uint8_t pin) {
  encoderPort[n][channel] = portInputRegister(digitalPinToPort(pin));
  encoderBit[n][channel] = digitalPinToBitMask(pin);
}
#else
bool encoderClosed(Number n, uint8_t channel) {
  Encoder encoder = entry(ENCODERS, n);
  return digitalRead(channel ? encoder.b : encoder.a) == LOW;
}

void encoderFind(uint8_t, uint8_t, uint8_t) {}
#endif

uint8_t encoderNow(Number n) { return (encoderClosed(n, 0) ? 2 : 0) | (encoderClosed(n, 1) ? 1 : 0); }

// Some chips want what an interrupt calls in their memory.
#ifndef IRAM_ATTR
#define IRAM_ATTR
#endif

// Looks at one encoder.
void IRAM_ATTR encoderLook(Number n) {
  uint8_t now = encoderNow(n);
  encoderChanges[n] += ENCODER_STEP[encoderLast[n] << 2 | now];
  encoderLast[n] = now;
  // At rest both channels are open: there the count is put right, whatever was missed.
  if (now == 0 || (CHANGES_A_DETENT == 2 && now == 3)) {
    if (encoderChanges[n] >= CHANGES_A_DETENT / 2) encoderDetents[n]++;
    if (encoderChanges[n] <= -CHANGES_A_DETENT / 2) encoderDetents[n]--;
    encoderChanges[n] = 0;
  }
}

void IRAM_ATTR encodersLook() {
  for (Number n = 0; n < ENCODER_COUNT; n++) encoderLook(n);
}

#if defined(__AVR__)
// A timer that dims lamps goes on dimming them, only faster, and interrupts each time that it has counted to 256.
#define JOINED(a, n, b) JOINED_(a, n, b)
#define JOINED_(a, n, b) a##n##b
#if ENCODER_TIMER == 2
ISR(TIMER2_OVF_vect) { encodersLook(); }

void encodersTick() {
  TCCR2A |= _BV(WGM21);             // counts up only
  TCCR2B = (TCCR2B & ~7) | 3;       // 16 MHz / 32 / 256: 1,950 times a second
  TIMSK2 |= _BV(TOIE2);
}
#else
// Every fourth time: 1,950 times a second.
ISR(JOINED(TIMER, ENCODER_TIMER, _OVF_vect)) {
  static uint8_t turn = 0;
  if (!(++turn & 3)) encodersLook();
}

void encodersTick() {
  JOINED(TCCR, ENCODER_TIMER, B) = (JOINED(TCCR, ENCODER_TIMER, B) & ~7) | 8 | 2;  // up only, 16 MHz / 8 / 256
  JOINED(TIMSK, ENCODER_TIMER, ) |= 1;                                             // when it is through
}
#endif
#else
// Elsewhere each channel interrupts by itself.
void encodersTick() {
  for (Number n = 0; n < ENCODER_COUNT; n++) {
    Encoder encoder = entry(ENCODERS, n);
    attachInterrupt(digitalPinToInterrupt(encoder.a), encodersLook, CHANGE);
    attachInterrupt(digitalPinToInterrupt(encoder.b), encodersLook, CHANGE);
  }
}
#endif

void encodersBegin() {
  for (Number n = 0; n < ENCODER_COUNT; n++) {
    Encoder encoder = entry(ENCODERS, n);
    pinMode(encoder.a, INPUT_PULLUP);
    pinMode(encoder.b, INPUT_PULLUP);
    encoderFind(n, 0, encoder.a);
    encoderFind(n, 1, encoder.b);
  }
  delay(2);
  for (Number n = 0; n < ENCODER_COUNT; n++) encoderLast[n] = encoderNow(n);
  encodersTick();
}

// The detents since the last time that one asked: onward is more than nothing, back is less.
int16_t encoderTaken(Number n) {
  noInterrupts();
  int16_t detents = encoderDetents[n];
  encoderDetents[n] = 0;
  interrupts();
  encoderTurned[n] += detents;
  return detents;
}
