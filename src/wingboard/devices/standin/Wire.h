// The bus of two wires, as the cores' own library has it.
#pragma once
#include <Arduino.h>

class TwoWire {
public:
  void begin() {}
  void begin(int, int) {}
  void setSDA(int) {}
  void setSCL(int) {}
  void setClock(uint32_t) {}
  void beginTransmission(uint8_t address);
  size_t write(uint8_t byte);
  uint8_t endTransmission(bool stop = true);
  uint8_t requestFrom(uint8_t address, uint8_t count);
  int read();

private:
  bool answered = false;
  uint8_t held[32], count = 0, next = 0;
};
extern TwoWire Wire;
