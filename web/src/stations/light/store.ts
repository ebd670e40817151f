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
  /** What is lit: all of it, or the lamps of these lines, each “function line”, and the screens of these functions. */
  lit: "all" | readonly string[];
  set: (changes: Partial<Omit<LightState, "set">>) => void;
}

export const useLightState = create<LightState>((set) => ({
  view: "night",
  side: "legends",
  chosen: null,
  level: null,
  fine: false,
  lit: [],
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

/** Lamp test, or all lamps out. */
export const testLamps = (): void => {
  const { lit, set } = useLightState.getState();
  set({ lit: lit === "all" ? [] : "all" });
};

/** One lamp on or off; during a lamp test it alone goes on. */
export const flipLamp = (key: string): void => {
  const { lit, set } = useLightState.getState();
  if (lit === "all") set({ lit: [key] });
  else set({ lit: lit.includes(key) ? lit.filter((one) => one !== key) : [...lit, key] });
};
