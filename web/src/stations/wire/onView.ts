/** Which module and which board are drawn at Wire: those of what is selected, else those chosen last. */
import { useCallback, useMemo, useState } from "react";
import type { Row, WireView } from "../../api/types";
import { useSession } from "../../app/session";

export function useOnView(wire: WireView) {
  const { selection, module: wanted, set, select } = useSession();
  /** The board chosen by hand, and what was selected then: another selection shows its own board. */
  const [byHand, setByHand] = useState({ board: "", under: "" });
  const module = shown(wire, wanted, selection);
  const here = useMemo(() => new Set(module?.ends.map((end) => end.line)), [module]);
  const rows = useMemo(() => wire.rows.filter((row) => here.has(row.line)), [wire, here]);
  const under = selection.join(" ");
  const mine = rows.find((row) => row.controller && selection.includes(row.owner));
  const board =
    wire.boards.find((b) => b.id === byHand.board && byHand.under === under) ??
    wire.boards.find((b) => b.id === mine?.controller) ??
    usual(wire, rows);
  const moduleId = module?.id ?? null;
  const boardId = board?.id ?? "";
  return {
    module,
    board,
    rows,
    /** Lines that end on the module, by their ids. */
    here,
    toModule: (next: string) => {
      setByHand({ board: "", under: "" });
      select([]);
      set({ module: next });
    },
    toBoard: (next: string) => setByHand({ board: next, under }),
    /** Nothing is selected any more, and still the same is shown. */
    stay: useCallback(() => {
      setByHand({ board: boardId, under: "" });
      select([]);
      set({ module: moduleId });
    }, [select, set, moduleId, boardId]),
  };
}

/** The module of what is selected; else the one chosen last, or the first on which lines end. */
function shown(wire: WireView, wanted: string | null, selection: readonly string[]) {
  const holds = (m: WireView["modules"][number]) =>
    m.bodies.some((b) => selection.includes(b.function)) ||
    m.terminals.some((t) => selection.includes(t.function));
  const chosen = wire.modules.find((m) => m.id === wanted);
  const home = chosen && holds(chosen) ? chosen : wire.modules.find(holds);
  return home ?? chosen ?? wire.modules.find((m) => m.ends.length > 0) ?? wire.modules[0];
}

/** The board that most of these lines go to; the first where none has a pin. */
function usual(wire: WireView, rows: readonly Row[]): WireView["boards"][number] | undefined {
  const many = (id: string) => rows.filter((row) => row.controller === id).length;
  return [...wire.boards].sort((a, b) => many(b.id) - many(a.id))[0];
}
