/** The commands of Parts. */
import type { Listed } from "../../app/registry";

export const PARTS: readonly Listed[] = [
  { id: "parts.next", words: "Next function that wants a part", keys: ["PageDown"], station: "parts" },
  { id: "parts.previous", words: "Previous function that wants a part", keys: ["PageUp"], station: "parts" },
  { id: "parts.best", words: "Choose the part that suits it best", keys: ["b"], station: "parts" },
  { id: "parts.all", words: "Give every function without a part its best", keys: ["B"], station: "parts" },
  { id: "parts.choose", words: "Choose the part that is shown", keys: ["c"], station: "parts" },
];
