/** What the page itself remembers: selection, theme, what was said. */
import { create } from "zustand";
import type { Clashes, Surroundings } from "../api/types";

export type Theme = "day" | "night";
export type Scope = "station" | "all";

interface Session {
  selection: string[];
  module: string | null;
  theme: Theme;
  notice: string | null;
  /** What the hand is doing just now: “Moving Wiper”. */
  doing: string | null;
  hot: string[];
  focus: string | null;
  scope: Scope;
  worklist: boolean;
  around: Surroundings | null;
  clashes: Clashes | null;
  dialog: "palette" | "help" | "accept" | "designs" | null;
  select: (ids: string[]) => void;
  toggle: (id: string) => void;
  set: (changes: Partial<Omit<Session, "select" | "toggle" | "set">>) => void;
}

/** Whether the window is too narrow for a worklist beside the station: there it is laid over it when asked for. */
export const isNarrow = (): boolean => window.matchMedia("(max-width: 900px)").matches;

const savedTheme = (): Theme => (localStorage.getItem("theme") === "night" ? "night" : "day");

export const useSession = create<Session>((set) => ({
  selection: [],
  module: null,
  theme: savedTheme(),
  notice: null,
  doing: null,
  hot: [],
  focus: null,
  scope: "station",
  worklist: !isNarrow(),
  around: null,
  clashes: null,
  dialog: null,
  select: (selection) => set({ selection, around: null }),
  toggle: (id) =>
    set((s) => ({
      selection: s.selection.includes(id)
        ? s.selection.filter((other) => other !== id)
        : [...s.selection, id],
      around: null,
    })),
  set: (changes) => set(changes),
}));

let late: readonly string[] = [];

/**
 * For a change that selects something once it is kept: the way to do so. It does nothing, and answers no, when somebody
 * has chosen something else meanwhile; what another such change selected does not count.
 */
export function selectsLater(): (ids: string[]) => boolean {
  const then = useSession.getState().selection;
  return (ids) => {
    const { selection, select } = useSession.getState();
    if (selection !== then && selection !== late) return false;
    select(ids);
    late = useSession.getState().selection;
    return true;
  };
}

/** With another design nothing of this one is selected, shown or said. */
export const ANEW = { selection: [], module: null, focus: null, notice: null } satisfies Partial<Session>;

export function applyTheme(theme: Theme): void {
  document.documentElement.dataset["theme"] = theme;
  localStorage.setItem("theme", theme);
}
