/** The commands of the Face. */
import type { Listed } from "../../app/registry";
import { ACTIONS } from "./arrange";

const KEYS: Record<string, readonly string[]> = { lock: ["l"], copy: ["c"] };

const LISTED: readonly Omit<Listed, "station">[] = [
  {
    id: "face.nudge",
    words: "Nudge 1 mm; with Shift 10, with Alt 0.1",
    keys: ["ArrowLeft", "ArrowRight", "ArrowUp", "ArrowDown"],
    panel: true,
    steps: true,
    keyOnly: true,
  },
  { id: "face.left", words: "Turn 15° counter-clockwise", keys: ["r"], panel: true },
  { id: "face.right", words: "Turn 15° clockwise", keys: ["R"], panel: true },
  {
    id: "face.tray",
    words: "Put the selected parts back into the tray; remove the selected graphics",
    keys: ["Delete", "Backspace"],
    panel: true,
  },
  { id: "face.all", words: "Select everything on the board", keys: ["Ctrl+a"], panel: true },
  { id: "face.next", words: "Select the next part of the module", keys: ["PageDown"], panel: true },
  { id: "face.previous", words: "Select the previous part of the module", keys: ["PageUp"], panel: true },
  { id: "face.place", words: "Place the next part of the tray", keys: ["p"] },
  { id: "face.view", words: "Next view: hands, behind, webs, reference, eye", keys: ["v"] },
  { id: "face.measure", words: "Measure between two clicks", keys: ["m"] },
  { id: "face.fit-selection", words: "Show what is selected", keys: ["F"] },
  { id: "face.modules", words: "One module, or all side by side", keys: ["b"] },
  {
    id: "face.out",
    words: "End measuring or picking, then let go of the selection",
    keys: ["Escape"],
    keyOnly: true,
  },
  ...ACTIONS.map((a) => ({ id: `face.${a.id}`, words: `Arrange: ${a.words}`, keys: KEYS[a.id] ?? [] })),
];

export const FACE: readonly Listed[] = LISTED.map((command) => ({ ...command, station: "face" }));
