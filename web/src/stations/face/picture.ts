/** Between screen, picture and panel: a projective map as the browser draws it, and its inverse. */
import { px, type Viewport } from "../../canvas/camera";
import type { Pixel } from "./store";

/** From the picture's pixels to mm, row by row. */
export type Map3 = readonly number[];

const at = (m: Map3, n: number): number => m[n] ?? 0;

const product = (a: Map3, b: Map3): number[] =>
  [0, 1, 2].flatMap((r) =>
    [0, 1, 2].map(
      (c) => at(a, r * 3) * at(b, c) + at(a, r * 3 + 1) * at(b, 3 + c) + at(a, r * 3 + 2) * at(b, 6 + c),
    ),
  );

/** From the picture's pixels to pixels of the screen. */
export const onScreen = (map: Map3, v: Viewport): number[] =>
  product([v.scale, 0, v.left, 0, -v.scale, v.top, 0, 0, 1], map);

/** A camera as it sees a plate that stands elsewhere on the board. */
export const plateViewport = (v: Viewport, plate: { x: number; y: number }): Viewport => ({
  ...v,
  left: px(v.left + plate.x * v.scale),
  top: px(v.top - plate.y * v.scale * v.tall),
});

/** The same as the style of an element whose origin is its upper left corner. */
export const asStyle = (map: Map3, v: Viewport): string => {
  const [a = 1, b = 0, c = 0, d = 0, e = 1, f = 0, g = 0, h = 0, i = 1] = onScreen(map, v);
  return `matrix3d(${[a, d, 0, g, b, e, 0, h, 0, 0, 1, 0, c, f, 0, i].join(",")})`;
};

export function through(map: Map3, x: number, y: number): Pixel {
  const w = at(map, 6) * x + at(map, 7) * y + at(map, 8);
  return {
    x: (at(map, 0) * x + at(map, 1) * y + at(map, 2)) / w,
    y: (at(map, 3) * x + at(map, 4) * y + at(map, 5)) / w,
  };
}

export function inverse(m: Map3): number[] {
  const [a = 1, b = 0, c = 0, d = 0, e = 1, f = 0, g = 0, h = 0, i = 1] = m;
  const det = a * (e * i - f * h) - b * (d * i - f * g) + c * (d * h - e * g);
  return [
    e * i - f * h,
    c * h - b * i,
    b * f - c * e,
    f * g - d * i,
    a * i - c * g,
    c * d - a * f,
    d * h - e * g,
    b * g - a * h,
    a * e - b * d,
  ].map((v) => v / det);
}

/** Until it is scaled or squared, a picture lies fitted into the plate. */
export function fitted(width: number, height: number, plateWidth: number, plateHeight: number): number[] {
  const k = Math.min(plateWidth / width, plateHeight / height);
  return [k, 0, 0, 0, -k, k * height, 0, 0, 1];
}
