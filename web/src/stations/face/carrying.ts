/** Carrying a part from the tray onto the board: the pointer machine's side of it. */
import { place } from "../../api/commands";
import type { Fn, GuidesView } from "../../api/types";
import { useSession } from "../../app/session";
import { toPx } from "../../canvas/camera";
import { followPointer } from "../../canvas/gesture";
import { askGuides, trayTarget } from "./dragging";
import type { BoardContext } from "./held";
import { probe, stopProbing } from "./probe";
import { useFace } from "./store";

let board: (() => { context: BoardContext; frame: HTMLElement } | null) | null = null;

/** The board that is on the page, for what comes from the tray. */
export function offerBoard(now: typeof board): () => void {
  board = now;
  return () => {
    if (board === now) board = null;
  };
}

export function carryPart(pressed: PointerEvent, fn: Fn): void {
  const { set } = useFace.getState();
  const session = useSession.getState();
  let target: ReturnType<typeof trayTarget> = null;
  let guides: GuidesView | null = null;
  let asked: string | null = null;
  const over = () => {
    set({ carry: null, caught: null });
    session.set({ doing: null });
    stopProbing();
  };
  followPointer(pressed, {
    begin: () => session.set({ doing: `Placing ${fn.name}` }),
    move: (event) => {
      const now = board?.();
      const bounds = now?.frame.getBoundingClientRect();
      const inside =
        bounds &&
        event.clientX > bounds.left &&
        event.clientX < bounds.right &&
        event.clientY > bounds.top &&
        event.clientY < bounds.bottom;
      target = now && inside ? trayTarget(now.context, event, guides) : null;
      if (!now || !bounds || !target) {
        set({ carry: { fn, x: event.clientX, y: event.clientY, over: false }, caught: null });
        return;
      }
      const { view, camera } = now.context;
      const { plate, x, y } = target;
      const put = place(fn.id, plate.module.id, x, y);
      if (asked !== plate.module.id) {
        asked = plate.module.id;
        void askGuides(view, fn.id, [], [put]).then((found) => (guides = found));
      }
      const at = toPx(camera.now(), plate.x + x, plate.y + y);
      set({
        carry: { fn, x: bounds.left + at.x, y: bounds.top + at.y, over: true },
        caught: guides && {
          module: plate.module.id,
          guides: target.guides,
          box: {
            x: x + guides.box[0],
            y: y + guides.box[1],
            width: guides.box[2] - guides.box[0],
            height: guides.box[3] - guides.box[1],
          },
        },
      });
      probe({ view, lead: fn.id, commands: [put] });
    },
    end: () => {
      over();
      const now = board?.();
      if (!now || !target) return;
      void now.context.changes.send([place(fn.id, target.plate.module.id, target.x, target.y)]);
      session.select([fn.id]);
    },
    click: () => session.select([fn.id]),
    cancel: over,
  });
}
