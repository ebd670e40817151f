/** The commands of Cut. */
import type { Listed } from "../../app/registry";

export const CUT: readonly Listed[] = [
  { id: "cut.play", words: "Play the run of the sheet, or pause", keys: [" "], station: "cut" },
  { id: "cut.next", words: "Next sheet", keys: ["PageDown"], station: "cut" },
  { id: "cut.previous", words: "Previous sheet", keys: ["PageUp"], station: "cut" },
  { id: "cut.view", words: "On the bed, or one layer", keys: ["v"], station: "cut" },
];
