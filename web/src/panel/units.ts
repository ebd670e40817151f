/** Millimetres and pixels are never mixed up: both are numbers the compiler tells apart. */
export type Mm = number & { readonly unit: "mm" };
export type Px = number & { readonly unit: "px" };

export const mm = (value: number): Mm => value as Mm;
export const px = (value: number): Px => value as Px;

/** A point of a panel: origin at its lower left corner, y up. */
export interface ModulePoint {
  x: Mm;
  y: Mm;
}

/** How a panel lies on the screen: pixels a millimetre, and where its origin is. Only this file flips y. */
export interface Viewport {
  scale: number;
  left: Px;
  top: Px;
}

export const matrix = (v: Viewport): string => `matrix(${v.scale} 0 0 ${-v.scale} ${v.left} ${v.top})`;

export const toModule = (v: Viewport, x: Px, y: Px): ModulePoint => ({
  x: mm((x - v.left) / v.scale),
  y: mm((v.top - y) / v.scale),
});

/** The whole of a piece of that size in a window, with room round it. */
export function fitted(
  width: number,
  height: number,
  window: { width: number; height: number },
  room = 40,
): Viewport {
  const scale = Math.max(
    0.05,
    Math.min((window.width - 2 * room) / width, (window.height - 2 * room) / height, 8),
  );
  return {
    scale,
    left: px((window.width - width * scale) / 2),
    top: px((window.height + height * scale) / 2),
  };
}

/** Larger or smaller by a factor, the point under (x, y) staying where it is. */
export function zoomed(v: Viewport, by: number, x: Px, y: Px): Viewport {
  const scale = Math.min(40, Math.max(0.2, v.scale * by));
  const ratio = scale / v.scale;
  return { scale, left: px(x - (x - v.left) * ratio), top: px(y - (y - v.top) * ratio) };
}
