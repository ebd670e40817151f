/** The commands of Wire. */
import type { Listed } from "../../app/registry";

export const WIRE: readonly Listed[] = [
  { id: "wire.missing", words: "Assign a pin to every line without one", keys: [], station: "wire" },
  { id: "wire.list", words: "Lines, pin list, wiring sheet: the next", keys: ["v"], station: "wire" },
  {
    id: "wire.out",
    words: "Leave the picked line where it is",
    keys: ["Escape"],
    station: "wire",
    keyOnly: true,
  },
];
