/* A simulated AVR chip for Python: runs a program, drives and reads its pins, talks to its serial port.
   Built with: cc -O2 -shared -fPIC chip.c -o chip.so -lsimavr */
#include <stdarg.h>
#include <stdint.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <simavr/sim_avr.h>
#include <simavr/sim_elf.h>
#include <simavr/avr_adc.h>
#include <simavr/avr_extint.h>
#include <simavr/avr_ioport.h>
#include <simavr/avr_twi.h>
#include <simavr/avr_uart.h>

enum { PORTS = 12, BITS = 8, CHANNELS = 16, UPPER = 0x20, SAID = 1 << 16, HEARD = 1 << 16 };

/* Told of every change of a pin that the program drives: port from 0 for A, bit, level; bit -1 and all directions. */
typedef void (*watcher)(int port, int bit, int value, uint64_t cycle);

/* What hangs on the two wires of the bus. Asked with an address that is spoken to (ADDRESS, its lowest bit: it is to be
   read), a byte that is written, one that is wanted, and the end of it all. Below 0: it does not answer. */
enum { ADDRESS, WRITTEN, WANTED, ENDED };
typedef int (*bus)(int what, int byte);

struct chip;
struct pin {
  struct chip *chip;
  int port, bit;
};
struct chip {
  avr_t *avr;
  watcher watch;
  bus bus;
  struct pin pins[PORTS][BITS + 1];
  uint8_t held[PORTS], level[PORTS]; /* pins driven from outside, and how */
  int millivolts[CHANNELS];
  char said[SAID], heard[HEARD];
  int said_count, heard_count, heard_sent, ready;
};

static void quiet(avr_t *avr, const int level, const char *format, va_list values) {
  (void)avr;
  if (level <= LOG_ERROR) vfprintf(stderr, format, values);
}

static void on_letter(avr_irq_t *irq, uint32_t value, void *of) {
  (void)irq;
  struct chip *chip = of;
  if (chip->said_count < SAID) chip->said[chip->said_count++] = (char)value;
}

static void feed(struct chip *chip) {
  avr_irq_t *in = avr_io_getirq(chip->avr, AVR_IOCTL_UART_GETIRQ('0'), UART_IRQ_INPUT);
  while (chip->ready && chip->heard_sent < chip->heard_count)
    avr_raise_irq(in, (uint8_t)chip->heard[chip->heard_sent++]);
  if (chip->heard_sent == chip->heard_count) chip->heard_sent = chip->heard_count = 0;
}

static void on_ready(avr_irq_t *irq, uint32_t value, void *of) {
  (void)irq, (void)value;
  ((struct chip *)of)->ready = 1;
  feed(of);
}

static void on_full(avr_irq_t *irq, uint32_t value, void *of) {
  (void)irq, (void)value;
  ((struct chip *)of)->ready = 0;
}

static void on_pin(avr_irq_t *irq, uint32_t value, void *of) {
  (void)irq;
  struct pin *pin = of;
  if (pin->chip->watch) pin->chip->watch(pin->port, pin->bit, pin->bit < 0 ? (int)(value & 0xFF) : (int)(value & 1), pin->chip->avr->cycle);
}

/* The simulator's converter has eight channels: whichever is asked for gets its voltage in the moment when it is. Those
   of the upper eight are told from the lower by a mark in a field that they do not use. */
static void on_convert(avr_irq_t *irq, uint32_t value, void *of) {
  (void)irq;
  struct chip *chip = of;
  union {
    avr_adc_mux_t mux;
    uint32_t word;
  } asked = {.word = value};
  if (asked.mux.kind != ADC_MUX_SINGLE || asked.mux.src >= 8) return;
  int channel = asked.mux.src + (asked.mux.diff ? 8 : 0);
  avr_raise_irq(avr_io_getirq(chip->avr, AVR_IOCTL_ADC_GETIRQ, asked.mux.src), chip->millivolts[channel]);
}

static void on_bus(avr_irq_t *irq, uint32_t value, void *of) {
  (void)irq;
  struct chip *chip = of;
  avr_twi_msg_irq_t asked = {.u.v = value};
  avr_irq_t *back = avr_io_getirq(chip->avr, AVR_IOCTL_TWI_GETIRQ(0), TWI_IRQ_INPUT);
  int what = asked.u.twi.msg, address = asked.u.twi.addr;
  if (!chip->bus) return;
  if (what & TWI_COND_STOP) chip->bus(ENDED, 0);
  if (what & TWI_COND_START && chip->bus(ADDRESS, address) >= 0)
    avr_raise_irq(back, avr_twi_irq_msg(TWI_COND_ACK, address, 1));
  if (what & TWI_COND_WRITE && chip->bus(WRITTEN, asked.u.twi.data) >= 0)
    avr_raise_irq(back, avr_twi_irq_msg(TWI_COND_ACK, address, 1));
  if (what & TWI_COND_READ) {
    int byte = chip->bus(WANTED, 0);
    avr_raise_irq(back, avr_twi_irq_msg(TWI_COND_READ, address, byte < 0 ? 0xFF : byte));
  }
}

static void widen_converter(avr_t *avr) {
  for (avr_io_t *io = avr->io_port; io; io = io->next)
    if (io->kind && !strcmp(io->kind, "adc"))
      for (int n = 0; n < 8; n++)
        ((avr_adc_t *)io)->muxmode[UPPER + n] = (avr_adc_mux_t){.kind = ADC_MUX_SINGLE, .src = n, .diff = 1};
}

/* A chip that runs the program of an ELF file from reset; NULL where that cannot be. */
struct chip *chip_new(const char *path, const char *kind, uint32_t hertz) {
  elf_firmware_t program;
  memset(&program, 0, sizeof program);
  avr_global_logger_set(quiet);
  avr_t *avr = avr_make_mcu_by_name(kind);
  if (!avr || elf_read_firmware(path, &program)) return NULL;
  struct chip *chip = calloc(1, sizeof *chip);
  chip->avr = avr;
  avr_init(avr);
  program.frequency = hertz;
  snprintf(program.mmcu, sizeof program.mmcu, "%s", kind);
  program.vcc = program.avcc = program.aref = 5000;
  avr_load_firmware(avr, &program);
  for (int n = 0; n < 8; n++) /* else it wakes for each cycle that an interrupt's pin is low */
    if (avr_extint_is_strict_lvl_trig(avr, n) > 0) avr_extint_set_strict_lvl_trig(avr, n, 0);
  uint32_t flags = 0; /* neither echoed nor slept for */
  avr_ioctl(avr, AVR_IOCTL_UART_SET_FLAGS('0'), &flags);
  avr_irq_register_notify(avr_io_getirq(avr, AVR_IOCTL_UART_GETIRQ('0'), UART_IRQ_OUTPUT), on_letter, chip);
  avr_irq_register_notify(avr_io_getirq(avr, AVR_IOCTL_UART_GETIRQ('0'), UART_IRQ_OUT_XON), on_ready, chip);
  avr_irq_register_notify(avr_io_getirq(avr, AVR_IOCTL_UART_GETIRQ('0'), UART_IRQ_OUT_XOFF), on_full, chip);
  if (!strcmp(kind, "atmega2560")) widen_converter(avr);
  avr_irq_register_notify(avr_io_getirq(avr, AVR_IOCTL_ADC_GETIRQ, ADC_IRQ_OUT_TRIGGER), on_convert, chip);
  avr_irq_register_notify(avr_io_getirq(avr, AVR_IOCTL_TWI_GETIRQ(0), TWI_IRQ_OUTPUT), on_bus, chip);
  for (int port = 0; port < PORTS; port++)
    for (int bit = 0; bit <= BITS; bit++) {
      int way = bit == BITS ? IOPORT_IRQ_DIRECTION_ALL : bit;
      avr_irq_t *irq = avr_io_getirq(avr, AVR_IOCTL_IOPORT_GETIRQ('A' + port), way);
      chip->pins[port][bit] = (struct pin){chip, port, bit == BITS ? -1 : bit};
      if (irq) avr_irq_register_notify(irq, on_pin, &chip->pins[port][bit]);
    }
  return chip;
}

void chip_free(struct chip *chip) {
  avr_terminate(chip->avr);
  free(chip);
}

void chip_watch(struct chip *chip, watcher watch) { chip->watch = watch; }

void chip_bus(struct chip *chip, bus bus) { chip->bus = bus; }

/* Runs for so many cycles; 0 where the program ended or crashed. */
int chip_run(struct chip *chip, uint64_t cycles) {
  uint64_t end = chip->avr->cycle + cycles;
  while (chip->avr->cycle < end) {
    int state = avr_run(chip->avr);
    if (state == cpu_Done || state == cpu_Crashed) return 0;
  }
  return 1;
}

uint64_t chip_cycle(struct chip *chip) { return chip->avr->cycle; }

/* Resets it, as its button does. */
void chip_reset(struct chip *chip) { avr_reset(chip->avr); }

/* Drives a pin from outside; a level below 0 lets it go, to its pull-up where that is on. */
void chip_drive(struct chip *chip, int port, int bit, int level) {
  uint8_t mask = 1 << bit;
  chip->held[port] = level < 0 ? chip->held[port] & ~mask : chip->held[port] | mask;
  chip->level[port] = level > 0 ? chip->level[port] | mask : chip->level[port] & ~mask;
  /* what is said here outlives later writes of the port; the line itself has to be moved too */
  avr_ioport_external_t outside = {.name = 'A' + port, .mask = chip->held[port], .value = chip->level[port]};
  avr_ioctl(chip->avr, AVR_IOCTL_IOPORT_SET_EXTERNAL('A' + port), &outside);
  avr_ioport_state_t now;
  avr_ioctl(chip->avr, AVR_IOCTL_IOPORT_GETSTATE('A' + port), &now);
  if (!(now.ddr & mask))
    avr_raise_irq(avr_io_getirq(chip->avr, AVR_IOCTL_IOPORT_GETIRQ('A' + port), bit), level < 0 ? !!(now.port & mask) : level);
}

/* Of a port: direction, what is written, what is read, eight bits each from the highest on. */
int chip_port(struct chip *chip, int port) {
  avr_ioport_state_t now;
  memset(&now, 0, sizeof now);
  avr_ioctl(chip->avr, AVR_IOCTL_IOPORT_GETSTATE('A' + port), &now);
  return now.ddr << 16 | now.port << 8 | now.pin;
}

/* A voltage at a channel of the converter, mV. */
void chip_volts(struct chip *chip, int channel, int millivolts) {
  chip->millivolts[channel] = millivolts;
}

/* Letters to its serial port; how many were taken. */
int chip_hear(struct chip *chip, const char *letters, int count) {
  if (count > HEARD - chip->heard_count) count = HEARD - chip->heard_count;
  memcpy(chip->heard + chip->heard_count, letters, count);
  chip->heard_count += count;
  feed(chip);
  return count;
}

/* What its serial port said since the last time. */
int chip_said(struct chip *chip, char *letters, int most) {
  int count = chip->said_count < most ? chip->said_count : most;
  memcpy(letters, chip->said, count);
  memmove(chip->said, chip->said + count, chip->said_count - count);
  chip->said_count -= count;
  return count;
}

/* A byte of its memory, registers too. */
int chip_memory(struct chip *chip, int address) { return chip->avr->data[address]; }
