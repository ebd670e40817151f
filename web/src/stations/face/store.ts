/** What the face station remembers: which view is laid over the panel, measuring, and picking points on a picture. */
import { create } from "zustand";

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

interface FaceStore {
  view: ViewName;
  side: "tray" | "words" | "more";
  measuring: boolean;
  picking: Picking | null;
  picked: Pixel[];
  set: (changes: Partial<Omit<FaceStore, "set">>) => void;
}

export const useFace = create<FaceStore>((set) => ({
  view: "face",
  side: "tray",
  measuring: false,
  picking: null,
  picked: [],
  set: (changes) => set(changes),
}));
