/** What the station remembers while the page is open: the view, the list at the left, what is chosen, how far dimmed. */
import { create } from "zustand";

export type View = "night" | "even" | "behind";
export type Side = "legends" | "behind" | "lamps";

interface LightState {
  view: View;
  side: Side;
  /** A strip or an LED behind, by its id. */
  chosen: string | null;
  /** While the slider moves, from 0 to 1. */
  level: number | null;
  /** The finer map. */
  fine: boolean;
  /** Functions whose lamps are lit. */
  lit: "none" | "all";
  set: (changes: Partial<Omit<LightState, "set">>) => void;
}

export const useLightState = create<LightState>((set) => ({
  view: "night",
  side: "legends",
  chosen: null,
  level: null,
  fine: false,
  lit: "none",
  set: (changes) => set(changes),
}));

export const VIEWS = [
  ["night", "At night"],
  ["even", "Evenness"],
  ["behind", "Behind"],
] as const satisfies readonly (readonly [View, string])[];

export const SIDES = [
  ["legends", "Legends"],
  ["behind", "Behind"],
  ["lamps", "Lamps"],
] as const satisfies readonly (readonly [Side, string])[];
