/** The kinds of panel, in a builder's words. */
export const KINDS = [
  ["cab", "Simulator or cab"],
  ["vehicle", "Road or rail vehicle"],
  ["boat", "Boat"],
  ["machine", "Machine or workshop"],
  ["prop", "Prop or exhibit"],
  ["aircraft", "Aircraft, planning only"],
  ["other", "Something else"],
] as const;
