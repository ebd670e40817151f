import { shown } from "./figures";

/** Minor units as money: “4.20 EUR”; without a currency the figure alone. */
export const money = (minor: number, currency = ""): string => `${shown(minor / 100, 2)} ${currency}`.trim();
