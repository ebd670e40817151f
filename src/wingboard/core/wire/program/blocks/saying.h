// Lines that the board says: plain text, each with a checksum at its end.
#pragma once
#include <Arduino.h>

// CRC-8 with the polynomial x^8 + x^2 + x + 1, from 0 on.
uint8_t checksum(uint8_t sum, char letter) {
  sum ^= letter;
  for (uint8_t bit = 0; bit < 8; bit++) sum = sum & 0x80 ? sum << 1 ^ 0x07 : sum << 1;
  return sum;
}

// What a board says: printed as it comes, the checksum after it.
class Saying : public Print {
public:
  size_t write(uint8_t letter) override {
    sum = checksum(sum, letter);
    return Serial.write(letter);
  }
  void end() {
    const char *HEX_DIGITS = "0123456789ABCDEF";
    Serial.write(" ~");
    Serial.write(HEX_DIGITS[sum >> 4]);
    Serial.write(HEX_DIGITS[sum & 15]);
    Serial.write("\r\n");
    sum = 0;
  }

private:
  uint8_t sum = 0;
};
Saying say;

void sayError(const __FlashStringHelper *what, const char *about) {
  say.print(F("error "));
  say.print(what);
  if (*about) {
    say.print(' ');
    say.print(about);
  }
  say.end();
}
