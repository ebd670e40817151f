/** The commands the page sends, with their defaults filled in. */
import type { Command } from "./types";

export const move = (functions: string[], dx: number, dy: number, graphics: string[] = []): Command => ({
  do: "move",
  functions,
  graphics,
  dx,
  dy,
});
export const turn = (functions: string[], by: number): Command => ({ do: "turn", functions, by });
export const toTray = (functions: string[]): Command => ({ do: "remove", functions });
export const place = (fn: string, module: string, x: number, y: number, by = 0): Command => ({
  do: "place",
  function: fn,
  module,
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
export type OpeningSize = Omit<Extract<Command, { do: "resize_opening" }>, "do">;
export const resizeOpening = (changes: OpeningSize): Command => ({ do: "resize_opening", ...changes });
export const measureOpening = (
  measured: "widths" | "heights" | "diagonals",
  place: number,
  value: number | null,
): Command => ({ do: "measure_opening", of: measured, place, value });
/** Another opening: what was measured of the old one goes. */
export const replaceOpening = (
  opening: NonNullable<BriefChanges["opening"]>,
  old: { widths: readonly number[]; heights: readonly number[]; diagonals: readonly number[] },
): Command[] => [
  setBrief({ opening }),
  ...old.widths.map((_, n) => measureOpening("widths", old.widths.length - n, null)),
  ...old.heights.map((_, n) => measureOpening("heights", old.heights.length - n, null)),
  ...old.diagonals.map((_, n) => measureOpening("diagonals", old.diagonals.length - n, null)),
];
export type SeatChanges = Omit<Extract<Command, { do: "set_seat" }>, "do">;
export const setSeat = (changes: SeatChanges): Command => ({ do: "set_seat", ...changes });
export const removeFunction = (fn: string): Command => ({ do: "remove_function", function: fn });
export const editFunction = (fn: string, changes: FnChanges): Command => ({
  do: "edit_function",
  function: fn,
  ...changes,
});
export const accept = (finding: string, reason: string, measured: number | null): Command => ({
  do: "accept",
  subjects: [],
  finding,
  reason,
  measured,
});
export const retract = (finding: string): Command => ({ do: "retract", finding });
