/** Figures as they are shown: one decimal, a true minus, no negative zero. */
export function shown(value: number, places = 1): string {
  const rounded = Number(value.toFixed(places)) + 0;
  return rounded.toFixed(places).replace("-", "−");
}

export const withUnit = (value: number, unit: string): string =>
  `${Number.isInteger(value) && unit !== "mm" ? value : shown(value, Math.abs(value) < 1 && value !== 0 ? 2 : 1)}${unit === "°" || unit === "%" ? "" : " "}${unit}`;

/** Whether a figure was measured; what is not is counted, and needs no unit twice. */
export const isMeasured = (unit: string): boolean => /^(mm²?|°C?|%|m?A|W)$/.test(unit);

export const many = (count: number, one: string, more = `${one}s`): string =>
  `${count} ${count === 1 ? one : more}`;
