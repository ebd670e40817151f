/** A picture as it lies on the screen: the core's map from its pixels to millimetres, then the camera's to pixels. */
import { px, type Viewport } from "../../canvas/camera";
import type { Pixel } from "./store";

/** From the picture's pixels (right way round) to pixels of the screen; `map` is the core's, row by row. */
export function onScreen(map: readonly number[], v: Viewport): DOMMatrix {
  const [a = 1, b = 0, c = 0, d = 0, e = 1, f = 0, g = 0, h = 0, i = 1] = map;
  const camera = new DOMMatrix([v.scale, 0, 0, -v.scale * v.tall, v.left, v.top]);
  return camera.multiply(new DOMMatrix([a, d, 0, g, b, e, 0, h, 0, 0, 1, 0, c, f, 0, i]));
}

/** Where a point comes to. */
export function through(map: DOMMatrix, x: number, y: number): Pixel {
  const to = map.transformPoint({ x, y });
  return { x: to.x / to.w, y: to.y / to.w };
}

/** A camera as it sees a plate that stands elsewhere on the board. */
export const plateViewport = (v: Viewport, plate: { x: number; y: number }): Viewport => ({
  ...v,
  left: px(v.left + plate.x * v.scale),
  top: px(v.top - plate.y * v.scale * v.tall),
});
