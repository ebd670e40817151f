// Gauges: small stepping motors with two coils, straight on four pins. The needle turns by a third of a degree a step, over
// 315 degrees. Nothing says where it stands, so at power-up it is driven back to its stop from wherever it may be.
#pragma once
#include "tables.h"

const int16_t GAUGE_STEPS = 945;
// Milliseconds from step to step: slow enough to start at once.
const uint8_t GAUGE_PACE = 2;

int16_t gaugeAt[GAUGE_COUNT];
int16_t gaugeTo[GAUGE_COUNT];
// Steps until it is at its stop for certain.
int16_t gaugeHoming[GAUGE_COUNT];

// The levels of its first pin, of the two in the middle, and of its last one, over six steps (data sheets of such motors):
// the current turns round the two coils.
const uint8_t GAUGE_LEVELS[6] = {0b101, 0b100, 0b110, 0b010, 0b011, 0b001};

void gaugeShow(Number n) {
  Gauge gauge = entry(GAUGES, n);
  uint8_t levels = GAUGE_LEVELS[gaugeAt[n] % 6];
  digitalWrite(gauge.pins[0], levels & 0b100 ? HIGH : LOW);
  digitalWrite(gauge.pins[1], levels & 0b010 ? HIGH : LOW);
  digitalWrite(gauge.pins[2], levels & 0b010 ? HIGH : LOW);
  digitalWrite(gauge.pins[3], levels & 0b001 ? HIGH : LOW);
}

// Once a millisecond.
void gaugesStep() {
  static uint8_t waited = 0;
  if (++waited < GAUGE_PACE) return;
  waited = 0;
  for (Number n = 0; n < GAUGE_COUNT; n++) {
    if (gaugeHoming[n]) {
      gaugeHoming[n]--;
      gaugeAt[n] = gaugeHoming[n];  // at the stop it is 0
    } else if (gaugeAt[n] < gaugeTo[n]) {
      gaugeAt[n]++;
    } else if (gaugeAt[n] > gaugeTo[n]) {
      gaugeAt[n]--;
    } else {
      continue;
    }
    gaugeShow(n);
  }
}

void gaugesBegin() {
  for (Number n = 0; n < GAUGE_COUNT; n++) {
    Gauge gauge = entry(GAUGES, n);
    for (uint8_t k = 0; k < 4; k++) pinMode(gauge.pins[k], OUTPUT);
    gaugeAt[n] = gaugeHoming[n] = GAUGE_STEPS;
    gaugeShow(n);
  }
}
