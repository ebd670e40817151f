// The link: lines of plain text, as docs/protocol.md says. Each line that the board says ends in a checksum; a line that
// it hears may leave it out.
#pragma once
#include "noting.h"
#include "saying.h"
#include "tables.h"
#if INPUT_COUNT
#include "inputs.h"
#endif
#if OUTPUT_COUNT
#include "outputs.h"
#endif
#if EXPANDER_COUNT
#include "expanders.h"
#endif
#if FREE_COUNT
#include "discovery.h"
#endif

const uint8_t LONGEST_LINE = 80;
// Without a line from the host for so long (ms) the link is lost.
const uint16_t LINK_HOLDS = 3000;

bool linked = false;
uint32_t lastHeard = 0;

// A host has answered for the first time, or no longer does.
void linkChanged() {
  if (!linked) noting = false;
#if OUTPUT_COUNT
  if (!linked) {
    loadsForget();
    testAsked = false;
  }
  outputsShow(linked);
#endif
#if FREE_COUNT
  if (!linked && discovering) discover(false);
#endif
}

void sayHello() {
  say.print(F("board "));
  say.print(PROTOCOL);
  say.print(' ');
  say.print((const __FlashStringHelper *)BOARD_LETTER);
  say.print(F(" of "));
  say.print((const __FlashStringHelper *)DESIGN);
  say.print(F(" revision "));
  say.print(REVISION);
  say.print(F(" lines "));
  say.print((const __FlashStringHelper *)LINES);
  say.print(F(" edition "));
  say.print(EDITION);
  say.end();
}

#if PIXEL_COUNT
// A colour as # and six hexadecimal figures.
void sayTint(const uint8_t *colour) {
  say.print(F(" #"));
  for (Number n = 0; n < 3; n++) {
    if (colour[n] < 16) say.print('0');
    say.print(colour[n], HEX);
  }
}

// False where a word is none.
bool tintOf(const char *word, uint8_t *colour) {
  if (*word != '#' || strlen(word) != 7) return false;
  char *end;
  uint32_t whole = strtoul(word + 1, &end, 16);
  for (Number n = 3; n-- > 0; whole >>= 8) colour[n] = whole;
  return !*end && word[1] != '+' && word[1] != '-' && word[1] != ' ';
}
#endif

#if OUTPUT_COUNT
void sayOutput(const Output &output, uint8_t value) {
  say.print(F("is "));
  say.print(output.name);
  say.print(' ');
#if DISPLAY_COUNT
  if (output.kind == TEXT) {
    say.print(displayText(output.a));
    return say.end();
  }
#endif
#if GAUGE_COUNT
  if (output.kind == NEEDLE) {
    say.print(gaugeTo[output.a]);
    return say.end();
  }
#endif
  say.print(value);
#if PIXEL_COUNT
  if (output.kind == COLOUR) sayTint(pixelColour[output.a]);
#endif
  say.end();
}

// A figure from 0 to `most`; -1 where it is none.
int16_t figure(const char *word, int16_t most) {
  if (!*word) return -1;
  int16_t made = 0;
  for (; *word; word++) {
    if (*word < '0' || *word > '9') return -1;
    made = made * 10 + (*word - '0');
    if (made > most) return -1;
  }
  return made;
}

void hearSet(const char *name, const char *word) {
  for (Number n = 0; n < OUTPUT_COUNT; n++) {
    Output output = entry(OUTPUTS, n);
    if (strcmp(output.name, name)) continue;
#if DISPLAY_COUNT
    if (output.kind == TEXT) {
      if (!displayShow(output.a, word)) return sayError(F("value"), word);
      return sayOutput(output, 0);
    }
#endif
#if GAUGE_COUNT
    if (output.kind == NEEDLE) {
      int16_t steps = figure(word, GAUGE_STEPS);
      if (steps < 0) return sayError(F("value"), word);
      gaugeTo[output.a] = steps;
      return sayOutput(output, 0);
    }
#endif
    int16_t value = figure(word, output.kind == LOAD ? 1 : 255);
#if PIXEL_COUNT
    uint8_t colour[3];
    if (output.kind == COLOUR && tintOf(word, colour)) {
      value = colour[0] || colour[1] || colour[2] ? 255 : 0;  // black is dark, and no colour to be bright in
      if (value) pixelTint(output.a, colour);
    }
#endif
    if (value < 0) return sayError(F("value"), word);
    outputSet[n] = value;
    outputsShow(linked);
    return sayOutput(output, value);
  }
  sayError(F("name"), name);
}
#endif

// What is still to be said of everything: its number, inputs before outputs.
const Number LISTED = -1;
Number listing = LISTED;

// Says one thing by its number; false behind the last.
bool sayNumber(Number n) {
#if INPUT_COUNT
  if (n < INPUT_COUNT) {
    sayInput(F("is "), n);
    return true;
  }
#endif
#if OUTPUT_COUNT
  if (n - INPUT_COUNT < OUTPUT_COUNT) {
    sayOutput(entry(OUTPUTS, n - INPUT_COUNT), outputSet[n - INPUT_COUNT]);
    return true;
  }
#endif
  (void)n;  // of a board on which nothing is
  return false;
}

// A list is said a line at a time, as fast as the port takes it, so that contacts are looked at in between.
void linkList() {
  while (Serial.availableForWrite() > LONGEST_NAME + 26) {
    if (sayNumber(listing)) {
      listing++;
      continue;
    }
    listing = LISTED;
    say.print(F("end"));
    return say.end();
  }
}

void hearGet(const char *name) {
  if (!*name) {
    listing = 0;
    return;
  }
#if INPUT_COUNT
  for (Number n = 0; n < INPUT_COUNT; n++)
    if (!strcmp_P(name, INPUTS[n].name)) return (void)sayNumber(n);
#endif
#if OUTPUT_COUNT
  for (Number n = 0; n < OUTPUT_COUNT; n++)
    if (!strcmp(entry(OUTPUTS, n).name, name)) return (void)sayNumber(INPUT_COUNT + n);
#endif
  sayError(F("name"), name);
}

#if OUTPUT_COUNT
void hearTest(const char *word) {
  if (strcmp(word, "on") && strcmp(word, "off")) return sayError(F("value"), word);
  testAsked = !strcmp(word, "on");
  outputsShow(linked);
  say.print(F("is test "));
  say.print(word);
  say.end();
}

void hearOff() {
  for (Number n = 0; n < OUTPUT_COUNT; n++) outputSet[n] = 0;
#if DISPLAY_COUNT
  for (Number n = 0; n < DISPLAY_COUNT; n++) displayShow(n, "");
#endif
#if GAUGE_COUNT
  for (Number n = 0; n < GAUGE_COUNT; n++) gaugeTo[n] = 0;
#endif
  outputsShow(linked);
  say.print(F("is off"));
  say.end();
}
#endif

// The next word of a line; the line is cut behind it.
char *nextWord(char *&rest) {
  while (*rest == ' ') rest++;
  char *word = rest;
  while (*rest && *rest != ' ') rest++;
  if (*rest) *rest++ = 0;
  return word;
}

// Whether a line is as it was sent; its checksum is cut off. One without a checksum is believed.
bool asSent(char *line) {
  char *mark = strrchr(line, '~');
  if (!mark || mark == line || mark[-1] != ' ') return true;
  uint8_t sum = 0;
  for (char *letter = line; letter < mark - 1; letter++) sum = checksum(sum, *letter);
  mark[-1] = 0;
  char *end;
  return strlen(mark + 1) == 2 && strtoul(mark + 1, &end, 16) == sum && !*end;
}

// What a host says; another word does not count as one.
const char WORDS[][9] PROGMEM = {"hello", "ping", "get", "set", "test", "off", "discover", "drive", "debug"};

bool known(const char *word) {
  for (Number n = 0; n < sizeof WORDS / sizeof WORDS[0]; n++)
    if (!strcmp_P(word, WORDS[n])) return true;
  return false;
}

void hear(char *line) {
  if (!asSent(line)) return sayError(F("checksum"), "");
  char *rest = line;
  char *word = nextWord(rest);
  if (!*word) return;
  if (!known(word)) return sayError(F("word"), word);
  char *first = nextWord(rest);
  bool fresh = !linked;
  linked = true;
  lastHeard = millis();
  if (fresh) linkChanged();
  if (!strcmp(word, "hello")) return sayHello();
  if (!strcmp(word, "ping")) {
    say.print(F("pong"));
    return say.end();
  }
  if (!strcmp(word, "get")) return hearGet(first);
  if (!strcmp(word, "debug")) return hearDebug(first);
#if OUTPUT_COUNT
  if (!strcmp(word, "set")) return hearSet(first, nextWord(rest));
  if (!strcmp(word, "test")) return hearTest(first);
  if (!strcmp(word, "off")) return hearOff();
#endif
#if FREE_COUNT
  if (!strcmp(word, "discover")) return hearDiscover(first);
  if (!strcmp(word, "drive")) return hearDrive(first, nextWord(rest));
#endif
  sayError(F("word"), word);
}

// Collects what comes in; a line that is too long, or holds what is no letter, is left out whole, and said to be.
void linkRead() {
  static char line[LONGEST_LINE + 1];
  static uint8_t length = 0;
  static bool spoilt = false;
  if (listing != LISTED) return linkList();
#if FREE_COUNT
  if (discoveryList()) return;
#endif
  while (Serial.available()) {
    char letter = Serial.read();
    if (letter == '\r') continue;
    if (letter == '\n') {
      line[length] = 0;
      length = 0;
      if (spoilt) sayError(F("line"), "");
      else hear(line);
      spoilt = false;
      return;  // one line at a time: contacts are looked at in between
    }
    if (length == LONGEST_LINE || letter < ' ' || letter > '~') spoilt = true;
    else line[length++] = letter;
  }
  if (linked && millis() - lastHeard > LINK_HOLDS) {
    linked = false;
    linkChanged();
  }
}
