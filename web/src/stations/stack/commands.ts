/** The commands of Stack. */
import type { Listed } from "../../app/registry";

export const STACK: readonly Listed[] = [
  { id: "stack.view", words: "Next view: pile, layer, press", keys: ["v"], station: "stack" },
  { id: "stack.next", words: "Next layer towards the back", keys: ["PageDown"], station: "stack" },
  { id: "stack.previous", words: "Next layer towards the front", keys: ["PageUp"], station: "stack" },
  { id: "stack.board", words: "Add a light board on standoffs", keys: [], station: "stack" },
];
