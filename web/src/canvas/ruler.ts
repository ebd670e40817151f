/** How many pixels of this screen a millimetre takes: as CSS supposes, until somebody has held a ruler to it. */
const STORED = "pixels-per-mm";
const SUPPOSED = 96 / 25.4;

export const isCalibrated = (): boolean => localStorage.getItem(STORED) !== null;

export function pixelsPerMm(): number {
  const kept = Number(localStorage.getItem(STORED));
  return Number.isFinite(kept) && kept > 0.5 && kept < 50 ? kept : SUPPOSED;
}

/** A line of so many pixels was measured on the screen (mm). */
export const calibrate = (pixels: number, measured: number): void =>
  localStorage.setItem(STORED, String(pixels / measured));
