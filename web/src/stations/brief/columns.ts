/** The columns of the function list: what their cells say, and where a stage of a function leads. */
import type { CellText, Fn } from "../../api/types";
import type { Station } from "../../app/stations";

export type Column = CellText["column"];

export const STAGES = [
  ["part", "part", "parts"],
  ["place", "place", "face"],
  ["legend", "legend", "face"],
  ["pin", "pin", "wire"],
  ["wire", "wire", "wire"],
  ["proof", "proof", "wire"],
] as const satisfies readonly (readonly [string, string, Station["id"]])[];

export type Stage = (typeof STAGES)[number][0];
export type At = { fn: string; column: Column | Stage };

export const HEADS: Record<Column, string> = {
  name: "function",
  want: "control or light",
  load: "switches",
  positions: "positions",
  bus: "bus",
  group: "group",
};

export const isStage = (column: Column | Stage): column is Stage =>
  STAGES.some(([stage]) => stage === column);

/** The load in words: “24 V 6 A DC”. */
export function loadText({ switches: { volts, amps, current } }: Fn): string {
  return [volts && `${volts} V`, amps && `${amps} A`, (volts || amps) && current].filter(Boolean).join(" ");
}

/** What a cell says. */
export function cellText(fn: Fn, column: Column): string {
  switch (column) {
    case "load":
      return loadText(fn);
    case "positions":
      return fn.positions.join(" / ");
    case "bus":
      return fn.switches.bus;
    default:
      return fn[column];
  }
}

/** The columns that a list of that width has room for (pixels); the others are in the function's sheet. */
export function columnsIn(width: number): Column[] {
  const all: readonly (readonly [number, Column])[] = [
    [0, "name"],
    [430, "want"],
    [600, "load"],
    [740, "positions"],
    [860, "bus"],
    [940, "group"],
  ];
  return all.filter(([least]) => width >= least).map(([, column]) => column);
}

/** How wide each is, as CSS has it. */
export const WIDTHS: Record<Column, string> = {
  name: "minmax(0, 1.15fr)",
  want: "minmax(0, 1fr)",
  load: "110px",
  positions: "minmax(90px, 0.8fr)",
  bus: "60px",
  group: "minmax(70px, 0.5fr)",
};
export const STAGE_WIDTH = 26;
