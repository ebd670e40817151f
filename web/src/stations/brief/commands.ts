/** The commands of the Brief. */
import type { Listed } from "../../app/registry";

export const BRIEF: readonly Listed[] = [
  { id: "brief.add", words: "Type a new function", keys: ["n"], station: "brief" },
  { id: "brief.filter", words: "Filter the functions", keys: ["f"], station: "brief" },
  {
    id: "brief.rows",
    words: "Move the selected rows; with Shift select several",
    keys: ["Alt+ArrowUp", "Alt+ArrowDown"],
    station: "brief",
    ofList: true,
    keyOnly: true,
  },
  {
    id: "brief.edit",
    words: "Type into the cell; Enter goes down, Tab goes right",
    keys: ["F2", "Enter"],
    station: "brief",
    ofList: true,
    keyOnly: true,
  },
  {
    id: "brief.fill",
    words: "Fill the cell of the first selected row into the others",
    keys: ["Ctrl+d"],
    station: "brief",
    ofList: true,
    keyOnly: true,
  },
];
