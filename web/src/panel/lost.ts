/** What a lamp, or the light behind, does while no host speaks to its board. */
export const LOST = [
  ["hold", "it stays as it was"],
  ["off", "it is dark"],
  ["on", "it is bright"],
  ["blink", "it blinks to say so"],
] as const;
