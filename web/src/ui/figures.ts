/** Figures as they are shown: one decimal, a true minus, no negative zero. */
export function shown(value: number, places = 1): string {
  const rounded = Number(value.toFixed(places)) + 0;
  return rounded.toFixed(places).replace("-", "−");
}

/** With its unit; with more decimals where it could not be told from the figure that stands beside it. */
export function withUnit(value: number, unit: string, beside = value): string {
  let places = Math.abs(value) < 1 && value !== 0 ? 2 : 1;
  while (value !== beside && places < 3 && value.toFixed(places) === beside.toFixed(places)) places++;
  const figure = Number.isInteger(value) && unit !== "mm" ? value : shown(value, places);
  return `${figure}${unit === "°" || unit === "%" ? "" : " "}${unit}`;
}

/** Whether a figure was measured; what is not is counted, and needs no unit twice. */
export const isMeasured = (unit: string): boolean => /^(mm²?|°C?|%|m?A|W)$/.test(unit);

export const many = (count: number, one: string, more = `${one}s`): string =>
  `${count} ${count === 1 ? one : more}`;
