/** The keys of the board: zoom, the next part of the tray, and stepping from part to part. */
import { useEffect } from "react";
import { useDesign } from "../../app/design";
import { useSession } from "../../app/session";

interface Actions {
  zoom: (by: number) => void;
  fit: () => void;
  onPlaceNext: () => void;
}

export function useBoardKeys(panel: string, { zoom, fit, onPlaceNext }: Actions): void {
  const view = useDesign();
  useEffect(() => {
    const step = (by: number) => {
      const ids = view.design.functions.filter((f) => f.place?.panel === panel).map((f) => f.id);
      const { selection, select } = useSession.getState();
      const now = ids.indexOf(selection[0] ?? "");
      const next = ids[(now + by + ids.length + (now < 0 && by < 0 ? 1 : 0)) % ids.length];
      if (next) select([next]);
    };
    const act: Record<string, () => void> = {
      p: onPlaceNext,
      "+": () => zoom(1.25),
      "=": () => zoom(1.25),
      "-": () => zoom(0.8),
      "0": fit,
      PageUp: () => step(-1),
      PageDown: () => step(1),
    };
    const pressed = (event: KeyboardEvent) => {
      const inField =
        event.target instanceof HTMLElement && /^(INPUT|TEXTAREA|SELECT)$/.test(event.target.tagName);
      const run = act[event.key];
      if (!run || inField || event.ctrlKey || event.metaKey || useSession.getState().dialog !== null) return;
      event.preventDefault();
      run();
    };
    window.addEventListener("keydown", pressed);
    return () => window.removeEventListener("keydown", pressed);
  }, [view, panel, zoom, fit, onPlaceNext]);
}
