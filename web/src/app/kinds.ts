/** The kinds of panel, in a builder's words. */
export const KINDS = [
  ["cab", "Simulator cockpit or cab"],
  ["vehicle", "Road or rail vehicle"],
  ["boat", "Boat"],
  ["machine", "Machine tool or workshop"],
  ["prop", "Prop or exhibit"],
  ["aircraft", "Aircraft, planning only"],
  ["other", "Something else"],
] as const;
