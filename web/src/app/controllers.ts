/** The controllers that can be added, by chip and pins. */
import type { BoardView } from "../api/types";

export const CONTROLLERS: readonly (readonly [BoardView["board"], string, string])[] = [
  ["atmega2560", "ATmega2560, 70 pins", "ATmega2560"],
  ["atmega328p", "ATmega328P, 20 pins", "ATmega328P"],
];

/** What a controller is called: “ATmega2560, 70 pins”. */
export const controllerName = (board: BoardView["board"]): string =>
  CONTROLLERS.find(([kind]) => kind === board)?.[1] ?? board;
