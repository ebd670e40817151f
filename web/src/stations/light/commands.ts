/** The commands of Light. */
import type { Listed } from "../../app/registry";

export const LIGHT: readonly Listed[] = [
  { id: "light.view", words: "Next view: at night, evenness, behind", keys: ["v"], station: "light" },
  { id: "light.strip", words: "Add a strip behind this module", keys: ["n"], station: "light" },
  { id: "light.led", words: "Add an LED behind this module", keys: ["l"], station: "light" },
  {
    id: "light.remove",
    words: "Remove the chosen strip or LED",
    keys: ["Delete", "Backspace"],
    station: "light",
    panel: true,
  },
  { id: "light.lamps", words: "Light all lamps, or none", keys: ["o"], station: "light" },
  { id: "light.suggest", words: "Look where lamps would have to lie", keys: [], station: "light" },
];
