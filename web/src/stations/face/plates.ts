/** The modules on the board, each where it stands: one alone at the origin, or all as they stand in the opening. */
import type { DesignView, ModuleView } from "../../api/types";
import type { Extent, PointMm } from "../../canvas/camera";

export interface PlateOnBoard {
  module: ModuleView;
  /** Where its lower left corner stands on the board (mm). */
  x: number;
  y: number;
}

/** One module alone, or all of them; from behind they stand left for right. */
export function platesOf(view: DesignView, one: ModuleView | null, behind: boolean): PlateOnBoard[] {
  if (one) return [{ module: one, x: 0, y: 0 }];
  return view.modules.map((module) => ({
    module,
    x: behind ? view.opening_width - module.x - module.width : module.x,
    y: module.y,
  }));
}

export function extentOf(plates: readonly PlateOnBoard[]): Extent {
  const x = Math.min(...plates.map((p) => p.x));
  const y = Math.min(...plates.map((p) => p.y));
  const right = Math.max(...plates.map((p) => p.x + p.module.width));
  const top = Math.max(...plates.map((p) => p.y + p.module.height));
  return { x, y, width: right - x, height: top - y };
}

const inside = ({ module, x, y }: PlateOnBoard, at: PointMm): boolean =>
  at.x > x && at.y > y && at.x < x + module.width && at.y < y + module.height;

/** The plate under a point of the board. */
export const plateAt = (plates: readonly PlateOnBoard[], at: PointMm): PlateOnBoard | undefined =>
  plates.find((plate) => inside(plate, at));
