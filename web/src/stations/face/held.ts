/** What the hand holds on the board: the selected parts that are free to move, and the selected graphics. */
import type { DesignView, Fn } from "../../api/types";
import type { Changes } from "../../app/design";
import { useSession } from "../../app/session";
import type { Camera } from "../../canvas/useCamera";
import { many } from "../../ui/figures";
import { graphicPlaces } from "./graphicShift";
import type { PlateOnBoard } from "./plates";

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

/** What the hand is doing: “Moving Wiper”, “Moving Wiper and 2 more”. */
export function doingWords(view: DesignView, held: Held, verb: string): string {
  const first =
    held.functions[0]?.name ??
    view.design.graphics.find((g) => g.id === held.graphics[0])?.text ??
    "a graphic";
  const more = held.functions.length + held.graphics.length - 1;
  return more > 0 ? `${verb} ${first} and ${more} more` : `${verb} ${first}`;
}
