/** What the face station remembers: which view is laid over the panel, measuring, picking, and what a drag shows. */
import { create } from "zustand";
import type { Fn } from "../../api/types";
import type { Guide } from "./snap";

export const VIEWS = [
  ["face", "Face"],
  ["hands", "Hands"],
  ["behind", "Behind"],
  ["webs", "Webs"],
  ["reference", "Reference"],
  ["eye", "Eye"],
] as const;

export type ViewName = (typeof VIEWS)[number][0];

/** What the next clicks on the picture mean. */
export type Picking = "scale" | "check" | "square" | "circle";

export interface Pixel {
  x: number;
  y: number;
}

export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** Guides that caught, with what is dragged (mm, on its module). */
export interface Caught {
  module: string;
  guides: readonly Guide[];
  box: Box;
}

/** A part on its way from the tray: where the pointer is on the screen. */
export interface Carry {
  fn: Fn;
  x: number;
  y: number;
  /** Whether it lies over a plate, and would be put down there. */
  over: boolean;
}

/** Every module beside each other, in place of one. */
export const ALL = "all";

interface FaceStore {
  view: ViewName;
  side: "tray" | "words" | "more";
  measuring: boolean;
  picking: Picking | null;
  picked: Pixel[];
  caught: Caught | null;
  /** The box that is being drawn, in pixels of the window. */
  box: Box | null;
  carry: Carry | null;
  set: (changes: Partial<Omit<FaceStore, "set">>) => void;
}

export const useFace = create<FaceStore>((set) => ({
  view: "face",
  side: "tray",
  measuring: false,
  picking: null,
  picked: [],
  caught: null,
  box: null,
  carry: null,
  set: (changes) => set(changes),
}));
