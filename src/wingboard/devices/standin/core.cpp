// What the stand-in does: pins, time, the port and the bus, with doors for the one who looks from outside.
#include <Arduino.h>
#include <Wire.h>
#include <stdio.h>

void setup();
void loop();

namespace {
enum { PINS = 64, LETTERS = 1 << 16 };
enum { ADDRESS, WRITTEN, WANTED, ENDED };
// What an instruction or a call takes about, in nanoseconds of the chip.
const uint64_t WRITES = 60, READS = 50, ASKS = 20, LOOP = 5000, CONVERTS = 20000, BUS_BYTE = 90000;

uint64_t now = 0;
bool begun = false;
struct {
  uint8_t mode = INPUT, written = LOW, dimmed = 0;
  bool held = false, level = false, dims = false;
  int millivolts = 0;
  void (*told)() = nullptr;
} pins[PINS];
int resolution = 10;
char heard[LETTERS], said[LETTERS];
int heard_first = 0, heard_count = 0, said_count = 0;
void (*watcher)(int pin, int level, uint64_t time) = nullptr;
int (*bus)(int what, int byte) = nullptr;

bool level(int pin) {
  if (pins[pin].mode == OUTPUT) return pins[pin].written;
  return pins[pin].held ? pins[pin].level : pins[pin].mode == INPUT_PULLUP;
}

int on_bus(int what, int byte) {
  now += BUS_BYTE;
  return bus ? bus(what, byte) : -1;
}
}  // namespace

SerialPort Serial;
TwoWire Wire;
#if defined(ARDUINO_ARCH_RP2040)
Board rp2040;
#else
Board ESP;
#endif

uint32_t Board::getCycleCount() {
  now += ASKS;
  return now * (F_CPU / 1000000) / 1000;
}

void pinMode(uint8_t pin, uint8_t mode) {
  now += WRITES;
  pins[pin].mode = mode;
  if (watcher) watcher(-1, pin, now);
}

void digitalWrite(uint8_t pin, uint8_t value) {
  now += WRITES;
  pins[pin].dims = false;
  bool was = pins[pin].written;
  pins[pin].written = value ? HIGH : LOW;
  if (watcher && was != (bool)value) watcher(pin, value ? HIGH : LOW, now);
}

int digitalRead(uint8_t pin) {
  now += READS;
  return level(pin);
}

int analogRead(uint8_t pin) {
  now += CONVERTS;
  int most = (1 << resolution) - 1, reading = pins[pin].millivolts * (long)most / 3300;
  return reading < most ? reading : most;
}

void analogReadResolution(int bits) { resolution = bits; }

void analogWrite(uint8_t pin, int value) {
  now += WRITES;
  pins[pin].dims = true;
  pins[pin].mode = OUTPUT;
  pins[pin].dimmed = value;
}

void shiftOut(uint8_t data, uint8_t clock, uint8_t order, uint8_t value) {
  for (int n = 0; n < 8; n++) {
    digitalWrite(data, value >> (order == MSBFIRST ? 7 - n : n) & 1);
    digitalWrite(clock, HIGH);
    digitalWrite(clock, LOW);
  }
}

int digitalPinToInterrupt(int pin) { return pin; }
void attachInterrupt(uint8_t pin, void (*told)(), int) { pins[pin].told = told; }
void noInterrupts() {}
void interrupts() {}
unsigned long millis() { return (uint32_t)(now / 1000000); }
unsigned long micros() { return (uint32_t)(now / 1000); }
void delay(unsigned long ms) { now += ms * 1000000ull; }
void delayMicroseconds(unsigned int us) { now += us * 1000ull; }

size_t Print::print(const char *text) {
  size_t count = 0;
  for (; *text; text++) count += write((uint8_t)*text);
  return count;
}
size_t Print::print(const __FlashStringHelper *text) { return print(reinterpret_cast<const char *>(text)); }
size_t Print::print(char letter) { return write((uint8_t)letter); }
size_t Print::print(long value, int base) {
  char text[24];
  snprintf(text, sizeof text, base == HEX ? "%lX" : "%ld", value);
  return print(text);
}
size_t Print::print(unsigned long value, int base) {
  char text[24];
  snprintf(text, sizeof text, base == HEX ? "%lX" : "%lu", value);
  return print(text);
}
size_t Print::print(unsigned char value, int base) { return print((unsigned long)value, base); }
size_t Print::print(int value, int base) { return print((long)value, base); }
size_t Print::print(unsigned int value, int base) { return print((unsigned long)value, base); }

int SerialPort::available() { return heard_count - heard_first; }
int SerialPort::read() { return heard_first < heard_count ? (uint8_t)heard[heard_first++] : -1; }
size_t SerialPort::write(uint8_t letter) {
  if (said_count < LETTERS) said[said_count++] = letter;
  return 1;
}
size_t SerialPort::write(const char *text) { return print(text); }

void TwoWire::beginTransmission(uint8_t address) { answered = on_bus(ADDRESS, address << 1) >= 0; }
size_t TwoWire::write(uint8_t byte) {
  if (answered) answered = on_bus(WRITTEN, byte) >= 0;
  return 1;
}
uint8_t TwoWire::endTransmission(bool stop) {
  if (stop) on_bus(ENDED, 0);
  return answered ? 0 : 2;
}
uint8_t TwoWire::requestFrom(uint8_t address, uint8_t wanted) {
  count = next = 0;
  if (on_bus(ADDRESS, address << 1 | 1) < 0) return 0;
  while (count < wanted && count < sizeof held) held[count++] = on_bus(WANTED, 0);
  on_bus(ENDED, 0);
  return count;
}
int TwoWire::read() { return next < count ? held[next++] : -1; }

extern "C" {
void board_run(uint64_t nanoseconds) {
  uint64_t end = now + nanoseconds;
  if (!begun) setup();
  begun = true;
  while (now < end) {
    loop();
    now += LOOP;
  }
}
uint64_t board_now() { return now; }
void board_watch(void (*watch)(int, int, uint64_t)) { watcher = watch; }
void board_on_bus(int (*answers)(int, int)) { bus = answers; }
void board_drive(int pin, int to) {
  bool was = level(pin);
  pins[pin].held = to >= 0;
  pins[pin].level = to > 0;
  if (was != level(pin) && pins[pin].told) pins[pin].told();
}
// Below 0 where it is an input.
int board_drives(int pin) { return pins[pin].mode == OUTPUT ? (pins[pin].dims ? pins[pin].dimmed > 0 : pins[pin].written) : -1; }
int board_dims(int pin) { return pins[pin].dims ? pins[pin].dimmed : -1; }
int board_written(int pin) { return pins[pin].written; }
int board_pulls_up(int pin) { return pins[pin].mode == INPUT_PULLUP; }
void board_volts(int pin, int millivolts) { pins[pin].millivolts = millivolts; }
void board_hear(const char *letters, int count) {
  if (heard_first == heard_count) heard_first = heard_count = 0;
  if (count > LETTERS - heard_count) count = LETTERS - heard_count;
  memcpy(heard + heard_count, letters, count);
  heard_count += count;
}
int board_said(char *letters, int most) {
  int count = said_count < most ? said_count : most;
  memcpy(letters, said, count);
  memmove(said, said + count, said_count - count);
  said_count -= count;
  return count;
}
}
