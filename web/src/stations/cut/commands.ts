/** The commands of Cut. */
import type { Listed } from "../../app/registry";

export const CUT: readonly Listed[] = [
  { id: "cut.play", words: "Play the run of the sheet, or pause", keys: [" "], station: "cut" },
  { id: "cut.next", words: "Next sheet", keys: ["PageDown"], station: "cut" },
  { id: "cut.previous", words: "Previous sheet", keys: ["PageUp"], station: "cut" },
  { id: "cut.view", words: "Next view: on the bed, one layer, by hand", keys: ["v"], station: "cut" },
];
