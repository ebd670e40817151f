/** The next part of the tray goes where the core finds room; each press counts, one after the other. */
import { answered, api } from "../../api/client";
import { place } from "../../api/commands";
import type { DesignView, Fn } from "../../api/types";
import type { Changes } from "../../app/design";
import { selectsLater, useSession } from "../../app/session";
import { ALL } from "./store";

let turn: Promise<void> = Promise.resolve();

/** What waits in the tray. */
export const inTray = (view: DesignView): Fn[] =>
  view.design.functions.filter((f) => f.place == null && f.state !== "alias");

/** Put the selected part of the tray down, or the first there; on the module, or on another that has room for it. */
export function putNext(module: string, changes: Changes): void {
  const { selection } = useSession.getState();
  const select = selectsLater();
  turn = turn.then(() =>
    next(module, selection, select, changes).catch((error: unknown) => {
      useSession.getState().set({ notice: error instanceof Error ? error.message : "That did not work" });
    }),
  );
}

async function next(
  module: string,
  selection: string[],
  select: (ids: string[]) => boolean,
  changes: Changes,
): Promise<void> {
  const { set, module: shown } = useSession.getState();
  const view = await changes.settled();
  const ready = view ? inTray(view).filter((f) => f.part != null) : [];
  const fn = ready.find((f) => selection.includes(f.id)) ?? ready[0];
  if (!view || !fn) return;
  const spot = await answered(
    api.POST("/api/designs/{design_id}/face/free-spot", {
      params: { path: { design_id: view.id } },
      body: { base: view.revision, function: fn.id, module },
    }),
  );
  const kept = await changes.send([place(fn.id, spot.module, spot.x, spot.y)]);
  if (!kept) return;
  const name = (id: string) => view.modules.find((m) => m.id === id)?.name ?? id;
  const stayed = useSession.getState().module === shown && select([fn.id]);
  if (spot.module !== module) {
    if (stayed && shown !== ALL) set({ module: spot.module });
    set({ notice: `${name(module)} has no room for ${fn.name}; it is on ${name(spot.module)}` });
  } else if (!spot.free) {
    set({ notice: `No module has room for ${fn.name}; it is where it is least in the way` });
  }
}
