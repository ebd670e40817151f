/** The commands that work at every station. */
import type { Listed } from "./registry";
import { STATIONS } from "./stations";

export const EVERYWHERE: readonly Listed[] = [
  ...STATIONS.map((s) => ({ id: `go.${s.id}`, words: `Go to ${s.name}`, keys: [String(s.number)] })),
  { id: "find", words: "Find a function, part, pin or command", keys: ["/", "Ctrl+k"], keyOnly: true },
  { id: "finding.previous", words: "Previous finding; its place lights up", keys: ["["] },
  { id: "finding.next", words: "Next finding; its place lights up", keys: ["]"] },
  { id: "finding.settle", words: "Settle the finding: apply its fix", keys: ["s"] },
  { id: "finding.accept", words: "Accept or override the finding, with a reason", keys: ["a"] },
  { id: "undo", words: "Undo", keys: ["z", "Ctrl+z"] },
  { id: "redo", words: "Redo", keys: ["Z", "Ctrl+Shift+z", "Ctrl+y"] },
  { id: "worklist", words: "Fold the worklist away, or bring it back", keys: ["w"] },
  { id: "theme", words: "Day or night theme", keys: [] },
  { id: "designs", words: "Switch, copy, import or export designs", keys: [] },
  { id: "new", words: "Begin a new panel", keys: [] },
  { id: "view.larger", words: "Zoom in", keys: ["+", "="] },
  { id: "view.smaller", words: "Zoom out", keys: ["-"] },
  { id: "view.fit", words: "Show all of the drawing", keys: ["f", "0"] },
  { id: "view.true", words: "Show the drawing in true size", keys: ["t"] },
  { id: "help", words: "Keys and help", keys: ["?"] },
  { id: "out", words: "Step out: of a field, a sheet, the selection", keys: ["Escape"], keyOnly: true },
];
