/** The choices of a function, in a builder's words. */
export const RISKS = [
  ["normal", "Everyday"],
  ["guarded", "Cannot be undone: guarded"],
  ["emergency", "Emergency"],
] as const;

export const CURRENTS = [
  ["", "Not said"],
  ["AC", "AC"],
  ["DC", "DC"],
] as const;

export const WHEN_STOPPED = [
  ["off", "The load goes off"],
  ["on", "The load stays on"],
] as const;
export const CARRIERS = [
  ["", "The control itself"],
  ["relay", "A relay"],
  ["contactor", "A contactor"],
  ["transistor", "A transistor"],
] as const;

export const STATES = [
  ["wanted", "Wanted"],
  ["pending", "Pending: decided later"],
  ["alias", "Another name of…"],
  ["dummy", "Dummy: does nothing, on purpose"],
  ["wired", "Wired"],
  ["proven", "Proven"],
] as const;

export const HANDS = [
  ["", "either hand"],
  ["left", "left hand"],
  ["right", "right hand"],
  ["both", "both hands"],
] as const;

export const MOMENTS = [
  ["", "any time"],
  ["start", "before the start"],
  ["run", "under way"],
  ["stop", "stopping"],
  ["emergency", "in an emergency"],
  ["service", "for service"],
] as const;

export const DUTIES = [
  ["", "Automatic"],
  ["control", "a control"],
  ["indicator", "an indicator"],
  ["source", "a source of power"],
  ["protection", "a breaker or fuse"],
  ["opening", "an opening or fixing"],
] as const;

export const ROLES = [
  ["", "Not set"],
  ["real", "Real: hard-wired, only reported here"],
  ["theatrical", "For show"],
  ["power", "The power switch"],
] as const;
