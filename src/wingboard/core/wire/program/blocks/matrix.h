// Matrices: one row at a time is pulled down, and the columns that follow it down tell which of its contacts are closed.
// A row that is not looked at is let go, so that it can neither feed nor short another one.
#pragma once
#include "tables.h"

// Microseconds that a column takes to follow its row through its wires.
const uint8_t MATRIX_FOLLOWS = 5;

uint32_t matrixSeen[MATRIX_ROW_COUNT];

bool matrixClosed(uint8_t row, uint8_t column) { return matrixSeen[row] >> column & 1; }

void matrixRead() {
  for (Number n = 0; n < MATRIX_ROW_COUNT; n++) {
    MatrixRow row = entry(MATRIX_ROWS, n);
    uint32_t seen = 0;
    pinMode(row.pin, OUTPUT);  // it is low: its pull-up is off
    delayMicroseconds(MATRIX_FOLLOWS);
    for (uint8_t k = 0; k < row.columns; k++)
      if (digitalRead(entry(MATRIX_COLUMNS, row.first + k)) == LOW) seen |= (uint32_t)1 << k;
    pinMode(row.pin, INPUT);
    matrixSeen[n] = seen;
  }
}

void matrixBegin() {
  for (Number n = 0; n < MATRIX_ROW_COUNT; n++) pinMode(entry(MATRIX_ROWS, n).pin, INPUT);
  for (uint8_t k = 0; k < MATRIX_COLUMN_COUNT; k++) pinMode(entry(MATRIX_COLUMNS, k), INPUT_PULLUP);
  delayMicroseconds(100);
  matrixRead();
}
