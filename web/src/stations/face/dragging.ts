/**
 * Dragging what is on the panel. While the pointer moves only the dragged nodes' transforms are written, through the
 * DOM, so that 400 parts stay fluid; let go, the change waits in the queue and the page shows it from there.
 */
import { move, place } from "../../api/commands";
import type { Command, DesignView, Fn, GuidesView } from "../../api/types";
import { many } from "../../ui/figures";
import type { Changes } from "../../app/design";
import { useSession } from "../../app/session";
import { commandsAfter } from "../../app/shown";
import { useQueue } from "../../app/queue";
import { answered, api } from "../../api/client";
import { mm, toMm } from "../../canvas/camera";
import { followPointer } from "../../canvas/gesture";
import type { Camera } from "../../canvas/useCamera";
import { graphicPlaces } from "./graphicShift";
import { plateAt, type PlateOnBoard } from "./plates";
import { probe, stopProbing } from "./probe";
import { snap } from "./snap";
import { useFace } from "./store";

export interface BoardContext {
  view: DesignView;
  plates: readonly PlateOnBoard[];
  camera: Camera;
  changes: Changes;
}

/** What is dragged: the functions that are free to move, and graphics. */
export interface Held {
  functions: readonly Fn[];
  graphics: readonly string[];
  /** Locked parts of the selection: they stay. */
  locked: number;
}

/** The selected parts that are on the board, and the selected graphics. */
export function heldOf({ view, plates }: Pick<BoardContext, "view" | "plates">): Held {
  const { selection } = useSession.getState();
  const here = new Set(plates.map((p) => p.module.id));
  const placed = view.design.functions.filter(
    (f) => selection.includes(f.id) && f.place && here.has(f.place.module),
  );
  const graphics = view.design.graphics.filter((g) => selection.includes(g.id) && here.has(g.module));
  return {
    functions: placed.filter((f) => !f.locked),
    graphics: graphics.map((g) => g.id),
    locked: placed.filter((f) => f.locked).length,
  };
}

export const lockedWords = (several: number): string =>
  several === 1
    ? "A locked part stays where it is; L frees it"
    : `${many(several, "locked part")} stay where they are; L frees them`;

/** Write the shift of what is held into the drawing. */
export function drawShift(held: Held, view: DesignView, dx: number, dy: number): void {
  for (const { id, place: at } of held.functions)
    if (at)
      document
        .getElementById(`part-${id}`)
        ?.setAttribute("transform", `translate(${at.x + dx} ${at.y + dy})`);
  for (const { id, x, y, follows } of graphicPlaces(view, held.graphics))
    document
      .getElementById(`graphic-${id}`)
      ?.setAttribute("transform", `translate(${x + (follows ? 0 : dx)} ${y + dy})`);
}

/** Faint copies of what is held, which are dragged in its place. */
function ghostsOf(held: Held): { draw: (dx: number, dy: number) => void; drop: () => void } {
  const ids = [...held.functions.map((f) => `part-${f.id}`), ...held.graphics.map((g) => `graphic-${g}`)];
  const made = ids.flatMap((id) => {
    const node = document.getElementById(id);
    if (!node?.parentElement) return [];
    const copy = node.cloneNode(true) as SVGGElement;
    for (const one of [copy, ...copy.querySelectorAll("[id]")]) one.removeAttribute("id");
    copy.removeAttribute("data-fn");
    copy.setAttribute("aria-hidden", "true");
    copy.style.opacity = "0.6";
    const shifted = document.createElementNS("http://www.w3.org/2000/svg", "g");
    shifted.append(copy);
    node.parentElement.append(shifted);
    return [shifted];
  });
  return {
    draw: (dx, dy) => {
      for (const node of made) node.setAttribute("transform", `translate(${dx} ${dy})`);
    },
    drop: () => {
      for (const node of made) node.remove();
    },
  };
}

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

export function leadOf(view: DesignView, id: string): Lead | null {
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
  const over_ = () => {
    useFace.getState().set({ caught: null });
    useSession.getState().set({ doing: null });
    stopProbing();
  };
  const selectCopies = async (commands: Command[]) => {
    const known = new Set(view.design.functions.map((f) => f.id));
    const drawn = new Set(view.design.graphics.map((g) => g.id));
    const kept = await changes.send(commands);
    ghosts?.drop();
    if (!kept) return;
    const copies = [
      ...kept.design.functions.filter((f) => !known.has(f.id)),
      ...kept.design.graphics.filter((g) => !drawn.has(g.id)),
    ];
    useSession.getState().select(copies.map((copy) => copy.id));
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
      over_();
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
      over_();
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

/** What the hand is doing: “Moving Wiper”, “Moving Wiper and 2 more”. */
export function doingWords(view: DesignView, held: Held, verb: string): string {
  const first =
    held.functions[0]?.name ??
    view.design.graphics.find((g) => g.id === held.graphics[0])?.text ??
    "a graphic";
  const more = held.functions.length + held.graphics.length - 1;
  return more > 0 ? `${verb} ${first} and ${more} more` : `${verb} ${first}`;
}

/** A box drawn over bare plate selects what it touches; with Shift it adds. */
export function boxSelect(pressed: PointerEvent, frame: HTMLElement, { view }: BoardContext): void {
  const { graphics } = view.design;
  const bounds = frame.getBoundingClientRect();
  const boxTo = (event: PointerEvent) => ({
    x: Math.min(pressed.clientX, event.clientX) - bounds.left,
    y: Math.min(pressed.clientY, event.clientY) - bounds.top,
    width: Math.abs(event.clientX - pressed.clientX),
    height: Math.abs(event.clientY - pressed.clientY),
  });
  const { set } = useFace.getState();
  const before = pressed.shiftKey ? useSession.getState().selection : [];
  followPointer(pressed, {
    move: (event) => set({ box: boxTo(event) }),
    end: (event) => {
      set({ box: null });
      const box = boxTo(event);
      const touched = [...frame.querySelectorAll<SVGElement>("[data-touch]")].flatMap((node) => {
        const is = node.getBoundingClientRect();
        const left = is.left - bounds.left;
        const top = is.top - bounds.top;
        const meets =
          left < box.x + box.width &&
          left + is.width > box.x &&
          top < box.y + box.height &&
          top + is.height > box.y;
        return meets ? [node.dataset["touch"] ?? ""] : [];
      });
      const drawn = new Set(graphics.map((g) => g.id));
      const parts = touched.filter((id) => !drawn.has(id));
      const rest = touched.filter((id) => drawn.has(id));
      useSession.getState().select([...new Set([...before, ...parts, ...rest])]);
    },
    click: () => {
      if (!pressed.shiftKey) useSession.getState().select([]);
    },
    cancel: () => set({ box: null }),
  });
}

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
