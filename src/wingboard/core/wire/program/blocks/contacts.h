// Contacts: looked at once a millisecond, or as often as there is time; believed once they have stayed as they are for
// SETTLED milliseconds, so that a contact that bounces for less than that is reported once.
#pragma once
#include "tables.h"
#if MATRIX_ROW_COUNT
#include "matrix.h"
#endif
#if CHAIN_IN_COUNT
#include "chains.h"
#endif
#if EXPANDER_COUNT
#include "expanders.h"
#endif

const uint8_t SETTLED = 8;

// How a contact reads at this very moment, without waiting for it to settle.
bool contactNow(const Contact &contact) {
#if MATRIX_ROW_COUNT
  if (contact.where == IN_MATRIX) return matrixClosed(contact.a, contact.b);
#endif
#if CHAIN_IN_COUNT
  if (contact.where == IN_CHAIN) return chainLow(contact.a, contact.b);
#endif
#if EXPANDER_COUNT
  if (contact.where == IN_EXPANDER) return expanderLow(contact.a, contact.b);
#endif
  return digitalRead(contact.a) == contact.closed;
}

// What is closed to ground wants the pull-up; a divider gives its level itself.
void contactBegin(const Contact &contact) {
  if (contact.where == ON_PIN) pinMode(contact.a, contact.closed == LOW ? INPUT_PULLUP : INPUT);
}

// Matrices and chains are looked at as a whole, before their contacts are.
void networksBegin() {
#if MATRIX_ROW_COUNT
  matrixBegin();
#endif
#if CHAIN_IN_COUNT
  chainsInBegin();
#endif
}

void networksRead() {
#if MATRIX_ROW_COUNT
  matrixRead();
#endif
#if CHAIN_IN_COUNT
  chainsRead();
#endif
}

#if CONTACT_COUNT
// Of each contact: whether it is closed (the highest bit), and for how many milliseconds it has read the other way.
uint8_t contactState[CONTACT_COUNT];

bool contactClosed(Number n) { return contactState[n] & 0x80; }

void contactsBegin() {
  for (Number n = 0; n < CONTACT_COUNT; n++) contactBegin(entry(CONTACTS, n));
  delay(2);
  for (Number n = 0; n < CONTACT_COUNT; n++) contactState[n] = contactNow(entry(CONTACTS, n)) ? 0x80 : 0;
}

// So many milliseconds after the last time; whether any contact is another now. One that is so for the first time begins
// to wait.
bool contactsRead(uint8_t passed) {
  bool moved = false;
  for (Number n = 0; n < CONTACT_COUNT; n++) {
    bool closed = contactNow(entry(CONTACTS, n));
    if (closed == contactClosed(n)) {
      contactState[n] &= 0x80;
      continue;
    }
    uint8_t waited = contactState[n] & 0x7F;
    waited = waited ? waited + passed : 1;
    if (waited > SETTLED) {
      contactState[n] = closed ? 0x80 : 0;
      moved = true;
    } else {
      contactState[n] = (contactState[n] & 0x80) | waited;
    }
  }
  return moved;
}
#endif
