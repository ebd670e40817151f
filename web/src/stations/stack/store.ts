/** What the station remembers while the page is open: the view, the chosen layer, the line of the section. */
import { create } from "zustand";

export type View = "pile" | "layer" | "press" | "case" | "frame";
export type Side = "layers" | "fixings" | "boards" | "case" | "order";

export interface Line {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}

interface StackState {
  view: View;
  side: Side;
  layer: string | null;
  board: string | null;
  /** By module; where none is said it runs across the middle. */
  lines: Record<string, Line>;
  set: (changes: Partial<Omit<StackState, "set" | "lines">>) => void;
  draw: (module: string, line: Line) => void;
}

export const useStack = create<StackState>((set) => ({
  view: "pile",
  side: "layers",
  layer: null,
  board: null,
  lines: {},
  set: (changes) => set(changes),
  draw: (module, line) => set((s) => ({ lines: { ...s.lines, [module]: line } })),
}));

export const VIEWS = [
  ["pile", "Pile"],
  ["layer", "Layer"],
  ["press", "Press"],
] as const satisfies readonly (readonly [View, string])[];

/** The views there are: case and frame only where there is one. */
export const viewsOf = (cased: boolean, framed: boolean): readonly (readonly [View, string])[] => [
  ...VIEWS,
  ...(cased ? ([["case", "Case"]] as const) : []),
  ...(framed ? ([["frame", "Frame"]] as const) : []),
];

export const SIDES = [
  ["layers", "Layers"],
  ["fixings", "Screws"],
  ["boards", "Boards"],
  ["case", "Case"],
  ["order", "Order"],
] as const satisfies readonly (readonly [Side, string])[];
