// A stand-in for the core of boards whose own is in no package registry: the functions that programs here call, run on this
// machine. Time passes only where it is said to.
#pragma once
#include <stddef.h>
#include <stdint.h>
#include <stdlib.h>
#include <string.h>

#define PROGMEM
#define memcpy_P memcpy
#define strcmp_P strcmp
class __FlashStringHelper;
#define F(text) (reinterpret_cast<const __FlashStringHelper *>(text))

enum { LOW, HIGH };
enum { INPUT, OUTPUT, INPUT_PULLUP };
enum { LSBFIRST, MSBFIRST };
enum { DEC = 10, HEX = 16 };
enum { CHANGE = 1 };

void pinMode(uint8_t pin, uint8_t mode);
void digitalWrite(uint8_t pin, uint8_t level);
int digitalRead(uint8_t pin);
int analogRead(uint8_t pin);
void analogReadResolution(int bits);
void analogWrite(uint8_t pin, int value);
void shiftOut(uint8_t data, uint8_t clock, uint8_t order, uint8_t value);
int digitalPinToInterrupt(int pin);
void attachInterrupt(uint8_t pin, void (*told)(), int mode);
void noInterrupts();
void interrupts();
unsigned long millis();
unsigned long micros();
void delay(unsigned long ms);
void delayMicroseconds(unsigned int us);

class Print {
public:
  virtual ~Print() {}
  virtual size_t write(uint8_t letter) = 0;
  size_t print(const char *text);
  size_t print(const __FlashStringHelper *text);
  size_t print(char letter);
  size_t print(unsigned char value, int base = DEC);
  size_t print(int value, int base = DEC);
  size_t print(unsigned int value, int base = DEC);
  size_t print(long value, int base = DEC);
  size_t print(unsigned long value, int base = DEC);
};

class SerialPort : public Print {
public:
  void begin(unsigned long) {}
  int available();
  int read();
  int availableForWrite() { return 127; }
  size_t write(uint8_t letter) override;
  size_t write(const char *text);
};
extern SerialPort Serial;

class Board {
public:
  uint32_t getCycleCount();
  uint32_t getFreeHeap() { return 200000; }
};
#if defined(ARDUINO_ARCH_RP2040)
extern Board rp2040;
#else
extern Board ESP;
#endif
