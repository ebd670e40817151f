/** What the station remembers while the page is open, and where the player stands. */
import { create } from "zustand";

export type View = "bed" | "layer" | "hand";
export type Side = "jobs" | "pieces" | "coupons" | "surface" | "files";

interface CutState {
  view: View;
  side: Side;
  /** The chosen sheet; none: the first. */
  sheet: string | null;
  layer: string;
  set: (changes: Partial<Omit<CutState, "set">>) => void;
}

export const useCut = create<CutState>((set) => ({
  view: "bed",
  side: "jobs",
  sheet: null,
  layer: "face",
  set: (changes) => set(changes),
}));

export const VIEWS = [
  ["bed", "On the bed"],
  ["layer", "One layer"],
  ["hand", "By hand"],
] as const satisfies readonly (readonly [View, string])[];

export const SIDES = [
  ["jobs", "Jobs"],
  ["pieces", "Pieces"],
  ["coupons", "Coupons"],
  ["surface", "Surface"],
  ["files", "Files"],
] as const satisfies readonly (readonly [Side, string])[];

interface PlayerState {
  /** Seconds into the run of the sheet. */
  at: number;
  playing: boolean;
  /** Seconds of the run in one of the clock. */
  pace: number;
  set: (changes: Partial<Omit<PlayerState, "set">>) => void;
}

/** Where the player stands: it changes with every frame, so only what is drawn of it looks at it. */
export const usePlayer = create<PlayerState>((set) => ({
  at: 0,
  playing: false,
  pace: 30,
  set: (changes) => set(changes),
}));

export const PACES = [1, 10, 30, 120, 600];
