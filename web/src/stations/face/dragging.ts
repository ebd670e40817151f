/**
 * Dragging what is on the panel. While the pointer moves only the dragged nodes' transforms are written, through the
 * DOM, so that 400 parts stay fluid; let go, the change waits in the queue and the page shows it from there.
 */
import { answered, api } from "../../api/client";
import { move, place } from "../../api/commands";
import type { Command, DesignView, Fn, GuidesView } from "../../api/types";
import { useQueue } from "../../app/queue";
import { selectsLater, useSession } from "../../app/session";
import { commandsAfter } from "../../app/shown";
import { mm, toMm } from "../../canvas/camera";
import { followPointer } from "../../canvas/gesture";
import { ghostsOf } from "./ghosts";
import { graphicPlaces } from "./graphicShift";
import { type BoardContext, doingWords, drawShift, type Held, heldOf, lockedWords } from "./held";
import { plateAt, type PlateOnBoard } from "./plates";
import { probe, stopProbing } from "./probe";
import { snap } from "./snap";
import { useFace } from "./store";

/** What may catch a leader that is dragged with others; asked once, when the drag begins. */
export async function askGuides(
  view: DesignView,
  lead: string,
  moving: string[],
  commands: Command[] = [],
): Promise<GuidesView | null> {
  const before = commandsAfter(view, useQueue.getState().waiting);
  try {
    const found = await answered(
      api.POST("/api/designs/{design_id}/face/guides", {
        params: { path: { design_id: view.id } },
        body: { base: view.revision, lead, moving, commands: [...before, ...commands] },
      }),
    );
    return found as GuidesView;
  } catch {
    return null; // without guides it catches on the grid
  }
}

interface Lead {
  id: string;
  module: string;
  x: number;
  y: number;
  fn: Fn | null;
}

function leadOf(view: DesignView, id: string): Lead | null {
  const fn = view.design.functions.find((f) => f.id === id);
  if (fn?.place) return { id, module: fn.place.module, x: fn.place.x, y: fn.place.y, fn };
  const graphic = view.design.graphics.find((g) => g.id === id);
  const [shift] = graphicPlaces(view, [id]);
  return graphic && shift
    ? { id, module: graphic.module, x: graphic.x + shift.x, y: graphic.y + shift.y, fn: null }
    : null;
}

/** New places on another module for what was dragged there: shifted by (dx, dy) mm of the board. */
function carriedOver(
  held: Held,
  view: DesignView,
  to: PlateOnBoard,
  from: PlateOnBoard,
  way: Way,
): Command[] {
  const dx = way.x + from.x - to.x;
  const dy = way.y + from.y - to.y;
  const parts = held.functions.flatMap((f) =>
    f.place ? [place(f.id, to.module.id, f.place.x + dx, f.place.y + dy, f.place.turn)] : [],
  );
  const drawn = view.design.graphics
    .filter((g) => held.graphics.includes(g.id))
    .map((g): Command => ({
      do: "edit_graphic",
      graphic: g.id,
      module: to.module.id,
      x: g.x + dx,
      y: g.y + dy,
    }));
  return [...parts, ...drawn];
}

interface Way {
  x: number;
  y: number;
}

/** Begin on a press over something selected; the rest follows from the pointer. */
export function dragItems(pressed: PointerEvent, leadId: string, context: BoardContext): void {
  const { view, plates, camera, changes } = context;
  const lead = leadOf(view, leadId);
  const home = plates.find((p) => p.module.id === lead?.module);
  if (!lead || !home) return;
  const start = camera.at(pressed);
  let held: Held = { functions: [], graphics: [], locked: 0 };
  let ghosts: ReturnType<typeof ghostsOf> | null = null;
  let guides: GuidesView | null = null;
  let over: PlateOnBoard = home;
  let way: Way = { x: 0, y: 0 };

  const draw = (dx: number, dy: number) => (ghosts ? ghosts.draw(dx, dy) : drawShift(held, view, dx, dy));
  const shift = (): Command[] => {
    const functions = held.functions.map((f) => f.id);
    if (ghosts)
      return [{ do: "copy_items", functions, graphics: [...held.graphics], dx: mm(way.x), dy: mm(way.y) }];
    if (over !== home) return carriedOver(held, view, over, home, way);
    return [move(functions, way.x, way.y, [...held.graphics])];
  };
  const tidy = () => {
    useFace.getState().set({ caught: null });
    useSession.getState().set({ doing: null });
    stopProbing();
  };
  const selectCopies = async (commands: Command[]) => {
    const known = new Set(view.design.functions.map((f) => f.id));
    const drawn = new Set(view.design.graphics.map((g) => g.id));
    const select = selectsLater();
    const kept = await changes.send(commands);
    ghosts?.drop();
    if (!kept) return;
    const copies = [
      ...kept.design.functions.filter((f) => !known.has(f.id)),
      ...kept.design.graphics.filter((g) => !drawn.has(g.id)),
    ];
    select(copies.map((copy) => copy.id));
  };

  followPointer(pressed, {
    begin: () => {
      held = heldOf(context);
      if (pressed.altKey) ghosts = ghostsOf(held);
      else if (held.locked) useSession.getState().set({ notice: lockedWords(held.locked) });
      const ids = [...held.functions.map((f) => f.id), ...held.graphics];
      if (ids.length === 0) return;
      useSession.getState().set({ doing: doingWords(view, held, ghosts ? "Copying" : "Moving") });
      void askGuides(view, lead.id, ghosts ? [] : ids).then((found) => (guides = found));
    },
    move: (event) => {
      if (held.functions.length + held.graphics.length === 0 || (lead.fn?.locked && !ghosts)) return;
      const at = camera.at(event);
      let dx = at.x - start.x;
      let dy = at.y - start.y;
      if (event.shiftKey) [dx, dy] = Math.abs(dx) >= Math.abs(dy) ? [dx, 0] : [0, dy];
      const onto = { x: mm(home.x + lead.x + dx), y: mm(home.y + lead.y + dy) };
      over = ghosts ? home : (plateAt(plates, onto) ?? home);
      const from = over === home ? guides : null;
      const spot = snap(lead.x + dx, lead.y + dy, from, camera.now().scale, event.ctrlKey);
      way = {
        x: event.shiftKey && dx === 0 ? 0 : spot.x - lead.x,
        y: event.shiftKey && dy === 0 ? 0 : spot.y - lead.y,
      };
      draw(way.x, way.y);
      useFace.getState().set({
        caught: guides && {
          module: home.module.id,
          guides: spot.guides,
          box: boxAt(guides, lead.x + way.x, lead.y + way.y),
        },
      });
      if (lead.fn && !ghosts) probe({ view, lead: lead.id, commands: shift() });
    },
    end: () => {
      tidy();
      if (way.x === 0 && way.y === 0) {
        draw(0, 0);
        return ghosts?.drop();
      }
      if (ghosts) void selectCopies(shift());
      else void changes.send(shift());
    },
    click: () => {
      if (!pressed.shiftKey) useSession.getState().select([leadId]);
    },
    cancel: () => {
      tidy();
      draw(0, 0);
      ghosts?.drop();
    },
  });
}

const boxAt = ({ box: [left, down, right, up] }: GuidesView, x: number, y: number) => ({
  x: x + left,
  y: y + down,
  width: right - left,
  height: up - down,
});

/** Where a part from the tray would come to lie under the pointer: its plate, and its place there. */
export function trayTarget(
  { plates, camera }: Pick<BoardContext, "plates" | "camera">,
  event: PointerEvent,
  guides: GuidesView | null,
): { plate: PlateOnBoard; x: number; y: number; guides: ReturnType<typeof snap>["guides"] } | null {
  const at = toMm(camera.now(), camera.inWindow(event));
  const plate = plateAt(plates, at);
  if (!plate) return null;
  const from = guides?.module === plate.module.id ? guides : null;
  return { plate, ...snap(at.x - plate.x, at.y - plate.y, from, camera.now().scale, event.ctrlKey) };
}
