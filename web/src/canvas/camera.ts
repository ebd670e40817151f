/** Millimetres and pixels are never mixed up: both are numbers the compiler tells apart. */
export type Mm = number & { readonly unit: "mm" };
export type Px = number & { readonly unit: "px" };

export const mm = (value: number): Mm => value as Mm;
export const px = (value: number): Px => value as Px;

/** A point of what is drawn: origin at its lower left, y up. */
export interface PointMm {
  x: Mm;
  y: Mm;
}

/** A point of the window onto it: origin at its upper left, y down. */
export interface PointPx {
  x: Px;
  y: Px;
}

/**
 * How a drawing lies in its window: pixels a millimetre, where its origin is, and how high a millimetre looks
 * beside a wide one (an eye that looks from below sees it flatter). Only this file flips y.
 */
export interface Viewport {
  scale: number;
  left: Px;
  top: Px;
  tall: number;
}

/** What is to be seen of a drawing (mm): its lower left corner and its size. */
export interface Extent {
  x: number;
  y: number;
  width: number;
  height: number;
}

export interface Size {
  width: number;
  height: number;
}

const NEAREST = 60;
const FURTHEST = 0.03;
/** What is drawn is never larger than that when it is fitted into its window (pixels a millimetre). */
const LARGEST_FIT = 8;

export const matrix = (v: Viewport): string =>
  `matrix(${v.scale} 0 0 ${-v.scale * v.tall} ${v.left} ${v.top})`;

export const toMm = (v: Viewport, at: PointPx): PointMm => ({
  x: mm((at.x - v.left) / v.scale),
  y: mm((v.top - at.y) / (v.scale * v.tall)),
});

export const toPx = (v: Viewport, x: number, y: number): PointPx => ({
  x: px(v.left + x * v.scale),
  y: px(v.top - y * v.scale * v.tall),
});

/** Of a small window no more than this share is left free at each side. */
const SHARE = 0.12;

/** Something in the middle of a window, as large as it can be with room round it. */
export function fitted(what: Extent, window: Size, wanted = 40, tall = 1): Viewport {
  const room = Math.min(wanted, Math.max(26, SHARE * Math.min(window.width, window.height)));
  const high = Math.max(what.height, 1) * tall;
  const wide = Math.max(what.width, 1);
  const scale = Math.max(
    FURTHEST,
    Math.min((window.width - 2 * room) / wide, (window.height - 2 * room) / high, LARGEST_FIT),
  );
  return centred(what, window, scale, tall);
}

/** Something in the middle of a window, at a scale. */
export const centred = (what: Extent, window: Size, scale: number, tall = 1): Viewport => ({
  scale,
  tall,
  left: px((window.width - what.width * scale) / 2 - what.x * scale),
  top: px((window.height + what.height * scale * tall) / 2 + what.y * scale * tall),
});

/** Larger or smaller by a factor, the point under `at` staying where it is. */
export function zoomed(v: Viewport, by: number, at: PointPx): Viewport {
  const scale = Math.min(NEAREST, Math.max(FURTHEST, v.scale * by));
  const ratio = scale / v.scale;
  return {
    ...v,
    scale,
    left: px(at.x - (at.x - v.left) * ratio),
    top: px(at.y - (at.y - v.top) * ratio),
  };
}

export const panned = (v: Viewport, dx: number, dy: number): Viewport => ({
  ...v,
  left: px(v.left + dx),
  top: px(v.top + dy),
});
