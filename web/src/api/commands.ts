/** The commands the page sends, with their defaults filled in. */
import type { Command } from "./types";

export const move = (functions: string[], dx: number, dy: number): Command => ({
  do: "move",
  functions,
  dx,
  dy,
});
export const turn = (functions: string[], by: number): Command => ({ do: "turn", functions, by });
export const toTray = (functions: string[]): Command => ({ do: "remove", functions });
export const place = (fn: string, panel: string, x: number, y: number, by = 0): Command => ({
  do: "place",
  function: fn,
  panel,
  x,
  y,
  turn: by,
});
export const choosePart = (fn: string, part: string | null): Command => ({
  do: "choose_part",
  function: fn,
  part,
});
export type Added = Extract<Command, { do: "add_function" }>;
export type FnChanges = Omit<Extract<Command, { do: "edit_function" }>, "do" | "function">;
export type BriefChanges = Omit<Extract<Command, { do: "set_brief" }>, "do">;
export const setBrief = (changes: BriefChanges): Command => ({ do: "set_brief", ...changes });
export const removeFunction = (fn: string): Command => ({ do: "remove_function", function: fn });
export const editFunction = (fn: string, changes: FnChanges): Command => ({
  do: "edit_function",
  function: fn,
  ...changes,
});
export const accept = (finding: string, reason: string, measured: number | null): Command => ({
  do: "accept",
  finding,
  reason,
  measured,
});
export const retract = (finding: string): Command => ({ do: "retract", finding });
