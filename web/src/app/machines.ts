/** Machines to begin with; every figure is the builder's to correct. */
import type { Machine } from "../api/types";

export const PROCESS_NAMES = [
  ["laser", "laser"],
  ["mill", "mill"],
  ["printer", "printer"],
  ["hand", "drill and saw"],
] as const;

const START: Record<Machine["kind"], Omit<Machine, "id" | "kind">> = {
  laser: {
    name: "Laser",
    bed_width: 300,
    bed_height: 200,
    margin: 5,
    kerf: 0.18,
    tools: [],
    depth: 6,
    spindle_rpm: 0,
  },
  mill: {
    name: "Mill",
    bed_width: 300,
    bed_height: 180,
    margin: 5,
    kerf: 0,
    tools: [{ diameter: 3.175, flutes: 1 }],
    depth: 12,
    spindle_rpm: 10000,
  },
  printer: {
    name: "Printer",
    bed_width: 220,
    bed_height: 220,
    margin: 5,
    kerf: 0,
    tools: [],
    depth: 200,
    spindle_rpm: 0,
  },
  hand: {
    name: "Drill and saw",
    bed_width: 1000,
    bed_height: 600,
    margin: 0,
    kerf: 0,
    tools: [{ diameter: 3, flutes: 2 }],
    depth: 20,
    spindle_rpm: 0,
  },
};

export const newMachine = (kind: Machine["kind"]): Omit<Machine, "id"> => ({ kind, ...START[kind] });
