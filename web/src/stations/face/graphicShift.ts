/** How far graphics were moved since the server last drew them: moves that wait to be kept. */
import type { DesignView } from "../../api/types";
import { useQueue, type Waiting } from "../../app/queue";
import { commandsAfter } from "../../app/shown";

export interface GraphicPlace {
  id: string;
  x: number;
  y: number;
  /** It follows its functions, and only goes up and down by itself. */
  follows: boolean;
}

function placesAfter(view: DesignView, ids: readonly string[], waiting: readonly Waiting[]): GraphicPlace[] {
  const moves = commandsAfter(view, waiting).filter((c) => c.do === "move");
  return view.design.graphics
    .filter((g) => ids.includes(g.id))
    .map((g) => {
      const follows = g.kind === "bracket" && g.functions.length > 0;
      const mine = moves.filter((c) => c.graphics?.includes(g.id));
      const x = follows ? 0 : mine.reduce((sum, c) => sum + (c.dx ?? 0), 0);
      return { id: g.id, x, y: mine.reduce((sum, c) => sum + (c.dy ?? 0), 0), follows };
    });
}

export const graphicPlaces = (view: DesignView, ids: readonly string[]): GraphicPlace[] =>
  ids.length === 0 ? [] : placesAfter(view, ids, useQueue.getState().waiting);

/** The shift (mm) that a graphic is shown with. */
export function useGraphicShift(view: DesignView, id: string): GraphicPlace | undefined {
  const waiting = useQueue((s) => s.waiting);
  return placesAfter(view, [id], waiting)[0];
}
