/** The keys of the board: zoom, the next part of the tray, and stepping from part to part. */
import { useEffect } from "react";
import { useChanges, useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { ACTIONS, placedSelection } from "./arrange";
import { useFace, VIEWS } from "./store";

interface Actions {
  zoom: (by: number) => void;
  fit: () => void;
  onPlaceNext: () => void;
}

/** The next of the views over the panel. */
function nextView(): void {
  const { view, set } = useFace.getState();
  const at = VIEWS.findIndex(([key]) => key === view);
  const next = VIEWS[(at + 1) % VIEWS.length];
  if (next) set({ view: next[0], picking: null, picked: [] });
}

export function useBoardKeys(module: string, { zoom, fit, onPlaceNext }: Actions): void {
  const view = useDesign();
  const { send } = useChanges(view.id);
  useEffect(() => {
    const step = (by: number) => {
      const ids = view.design.functions.filter((f) => f.place?.module === module).map((f) => f.id);
      const { selection, select } = useSession.getState();
      const now = ids.indexOf(selection[0] ?? "");
      const next = ids[(now + by + ids.length + (now < 0 && by < 0 ? 1 : 0)) % ids.length];
      if (next) select([next]);
    };
    const here = view.design.functions.filter((f) => f.place?.module === module);
    const act = (id: string) => {
      const action = ACTIONS.find((a) => a.id === id);
      const ids = placedSelection(here);
      if (action && ids.length) void send(action.commands(ids, here));
    };
    const keys: Record<string, () => void> = {
      p: onPlaceNext,
      "+": () => zoom(1.25),
      "=": () => zoom(1.25),
      "-": () => zoom(0.8),
      "0": fit,
      m: () => useFace.getState().set({ measuring: !useFace.getState().measuring }),
      v: () => nextView(),
      l: () => act("lock"),
      c: () => act("copy"),
      PageUp: () => step(-1),
      PageDown: () => step(1),
    };
    const pressed = (event: KeyboardEvent) => {
      if (event.key === "Escape") useFace.getState().set({ measuring: false, picking: null, picked: [] });
      const inField =
        event.target instanceof HTMLElement && /^(INPUT|TEXTAREA|SELECT)$/.test(event.target.tagName);
      const run = keys[event.key];
      if (!run || inField || event.ctrlKey || event.metaKey || useSession.getState().dialog !== null) return;
      event.preventDefault();
      run();
    };
    window.addEventListener("keydown", pressed);
    return () => window.removeEventListener("keydown", pressed);
  }, [view, module, zoom, fit, onPlaceNext, send]);
}
