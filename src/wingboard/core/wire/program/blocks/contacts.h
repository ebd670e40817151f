// Contacts: read every millisecond, believed once they have stayed as they are for SETTLED milliseconds, so that a
// contact that bounces for as long as that is reported once.
#pragma once
#include "tables.h"

const uint8_t SETTLED = 8;

// Of each contact: whether it is closed (the highest bit), and for how many milliseconds it has read the other way.
uint8_t contactState[CONTACT_COUNT];

bool contactClosed(uint8_t n) { return contactState[n] & 0x80; }

// How a contact reads at this very moment, without waiting for it to settle.
bool contactNow(const Contact &contact) { return digitalRead(contact.a) == contact.closed; }

void contactsBegin() {
  for (uint8_t n = 0; n < CONTACT_COUNT; n++) {
    Contact contact = entry(CONTACTS, n);
    // What is closed to ground wants the pull-up; a divider gives its level itself.
    pinMode(contact.a, contact.closed == LOW ? INPUT_PULLUP : INPUT);
  }
  delay(2);
  for (uint8_t n = 0; n < CONTACT_COUNT; n++) contactState[n] = contactNow(entry(CONTACTS, n)) ? 0x80 : 0;
}

// Once a millisecond.
void contactsRead() {
  for (uint8_t n = 0; n < CONTACT_COUNT; n++) {
    bool closed = contactNow(entry(CONTACTS, n));
    if (closed == contactClosed(n)) {
      contactState[n] &= 0x80;
    } else if ((++contactState[n] & 0x7F) >= SETTLED) {
      contactState[n] = closed ? 0x80 : 0;
    }
  }
}
