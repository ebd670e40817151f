// Addressable lamps: each takes three bytes from its data line, and passes on what comes after them. A bit is a pulse of
// 1.25 microseconds, long for 1 and short for 0; a pause shows what came.
#pragma once
#include "tables.h"

// A pause after which a chain shows what it was sent (microseconds).
const uint16_t PIXELS_SHOW = 300;

// Of each lamp (or strip, whose LEDs are all alike) its colour, and how bright it shows that.
uint8_t pixelColour[PIXEL_COUNT][3];
uint8_t pixelBright[PIXEL_COUNT];
bool pixelsStale = false;

#if defined(__AVR__)
// Cycles of a clock of 16 MHz, 62.5 nanoseconds each: high for 6 (375 ns) or for 12 (750 ns), 20 in all.
void pixelSend(uint8_t pin, uint8_t byte) {
  volatile uint8_t *port = portOutputRegister(digitalPinToPort(pin));
  noInterrupts();
  uint8_t high = *port | digitalPinToBitMask(pin);
  uint8_t low = *port & ~digitalPinToBitMask(pin);
  uint8_t bits = 8;
  asm volatile(
      "1: st %a[port], %[high]   \n\t"  // here the pulse begins
      "   nop                    \n\t"
      "   nop                    \n\t"
      "   nop                    \n\t"
      "   sbrs %[byte], 7        \n\t"  // a 1 stays up
      "   st %a[port], %[low]    \n\t"  // a 0 ends: 3 + 1 + 2 cycles
      "   lsl %[byte]            \n\t"
      "   nop                    \n\t"
      "   nop                    \n\t"
      "   nop                    \n\t"
      "   nop                    \n\t"
      "   st %a[port], %[low]    \n\t"  // a 1 ends: 3 + 2 + 5 + 2 cycles
      "   nop                    \n\t"
      "   nop                    \n\t"
      "   nop                    \n\t"
      "   dec %[bits]            \n\t"
      "   brne 1b                \n\t"
      : [byte] "+r"(byte), [bits] "+r"(bits)
      : [port] "e"(port), [high] "r"(high), [low] "r"(low));
  interrupts();  // between two bytes others have their turn, shorter than the pause that shows
}
#else
#if defined(ARDUINO_ARCH_RP2040)
uint32_t pixelClock() { return rp2040.getCycleCount(); }
#else
uint32_t pixelClock() { return ESP.getCycleCount(); }
#endif

void pixelSend(uint8_t pin, uint8_t byte) {
  const uint32_t tick = F_CPU / 8000000;  // 125 nanoseconds
  noInterrupts();
  for (uint8_t bit = 0; bit < 8; bit++, byte <<= 1) {
    uint32_t begun = pixelClock();
    digitalWrite(pin, HIGH);
    while (pixelClock() - begun < (byte & 0x80 ? 6 : 3) * tick) {}
    digitalWrite(pin, LOW);
    while (pixelClock() - begun < 10 * tick) {}
  }
  interrupts();
}
#endif

// Green comes first, then red, then blue; where a lamp shows them exchanged, change it here.
void pixelSendOne(uint8_t pin, const uint8_t *colour, uint8_t bright) {
  const uint8_t ORDER[] = {1, 0, 2};
  for (Number n = 0; n < 3; n++) pixelSend(pin, (uint16_t)colour[ORDER[n]] * bright / 255);
}

void pixelSet(Number n, uint8_t bright) {
  if (pixelBright[n] != bright) pixelsStale = true;
  pixelBright[n] = bright;
}

void pixelTint(Number n, const uint8_t *colour) {
  memcpy(pixelColour[n], colour, 3);
  pixelsStale = true;
}

// Sends what was changed to every chain; in a lamp test each in the colour of the design, whatever a host has made of it.
void pixelsWrite(bool test) {
  static bool tested = false;
  if (!pixelsStale && test == tested) return;
  pixelsStale = false;
  tested = test;
  delayMicroseconds(PIXELS_SHOW);  // what was sent before is shown for certain
  for (Number n = 0; n < PIXEL_COUNT; n++) {
    Pixel pixel = entry(PIXELS, n);
    for (uint16_t led = 0; led < pixel.leds; led++) pixelSendOne(pixel.pin, test ? pixel.colour : pixelColour[n], pixelBright[n]);
  }
}

void pixelsBegin() {
  for (Number n = 0; n < PIXEL_COUNT; n++) {
    Pixel pixel = entry(PIXELS, n);
    digitalWrite(pixel.pin, LOW);
    pinMode(pixel.pin, OUTPUT);
    memcpy(pixelColour[n], pixel.colour, 3);
  }
  pixelsStale = true;
}
