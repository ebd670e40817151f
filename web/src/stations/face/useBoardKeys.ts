/** What the commands of the Face do on the board. */
import { toTray, turn } from "../../api/commands";
import type { Command, Fn } from "../../api/types";
import { type Doing, useCommands } from "../../app/registry";
import { useSession } from "../../app/session";
import { ACTIONS, placedSelection } from "./arrange";
import { type BoardContext, heldOf, lockedWords } from "./held";
import { nudge } from "./nudge";
import { ALL, useFace, VIEWS } from "./store";

/** The next of the views over the panel. */
function nextView(): void {
  const { view, set } = useFace.getState();
  const at = VIEWS.findIndex(([key]) => key === view);
  const next = VIEWS[(at + 1) % VIEWS.length];
  if (next) set({ view: next[0], picking: null, picked: [] });
}

/** One module, or all of them side by side. */
function otherModules(): void {
  const { module, set } = useSession.getState();
  set({ module: module === ALL ? null : ALL });
}

/** Where the selected parts and graphics reach on the board (pixels of the page), for showing them large. */
function reachOfSelection(ids: readonly string[]): DOMRect | null {
  const boxes = ids.flatMap((id) => {
    const node = document.querySelector(`[data-touch="${CSS.escape(id)}"]`);
    return node ? [node.getBoundingClientRect()] : [];
  });
  if (boxes.length === 0) return null;
  const left = Math.min(...boxes.map((b) => b.left));
  const top = Math.min(...boxes.map((b) => b.top));
  const right = Math.max(...boxes.map((b) => b.right));
  const bottom = Math.max(...boxes.map((b) => b.bottom));
  return new DOMRect(left, top, right - left, bottom - top);
}

export function useBoardKeys(context: BoardContext, here: readonly Fn[], onPlaceNext: () => void): void {
  const { view, camera, changes } = context;
  const { select } = useSession.getState();
  const step = (by: number) => {
    const now = here.findIndex((f) => f.id === useSession.getState().selection[0]);
    const next = here[(now + by + here.length + (now < 0 && by < 0 ? 1 : 0)) % here.length];
    if (next) select([next.id]);
  };
  const selected = (work: (ids: string[]) => void) => () => {
    const ids = placedSelection(here);
    if (ids.length > 0) work(ids);
  };
  const arranging: Record<string, Doing> = Object.fromEntries(
    ACTIONS.map((action) => [
      `face.${action.id}`,
      selected((ids) => {
        if (ids.length >= action.least) void changes.send(action.commands(ids, here));
      }),
    ]),
  );
  const remove = () => {
    const held = heldOf(context);
    const ids = held.functions.map((f) => f.id);
    if (held.locked) useSession.getState().set({ notice: lockedWords(held.locked) });
    const commands: Command[] = held.graphics.map((graphic) => ({ do: "remove_graphic", graphic }));
    if (ids.length) commands.unshift(toTray(ids));
    if (commands.length) void changes.send(commands);
  };
  useCommands({
    ...arranging,
    "face.nudge": (event) => {
      const held = heldOf(context);
      if (held.locked) useSession.getState().set({ notice: lockedWords(held.locked) });
      if (event) nudge(event, held, view, changes);
    },
    "face.left": selected((ids) => void changes.send([turn(ids, 15)])),
    "face.right": selected((ids) => void changes.send([turn(ids, -15)])),
    "face.tray": remove,
    "face.all": () => select(here.map((f) => f.id)),
    "face.next": () => step(1),
    "face.previous": () => step(-1),
    "face.place": onPlaceNext,
    "face.view": nextView,
    "face.measure": () => useFace.getState().set({ measuring: !useFace.getState().measuring }),
    "face.modules": view.modules.length > 1 ? otherModules : undefined,
    "face.fit-selection": () => {
      const box = reachOfSelection(useSession.getState().selection);
      if (!box) return;
      const low = camera.at({ clientX: box.left, clientY: box.bottom });
      const high = camera.at({ clientX: box.right, clientY: box.top });
      camera.fitTo({ x: low.x, y: low.y, width: high.x - low.x, height: high.y - low.y });
    },
    "face.out": () => {
      const { measuring, picking, set } = useFace.getState();
      if (measuring || picking) set({ measuring: false, picking: null, picked: [] });
      else select([]);
    },
  });
}
