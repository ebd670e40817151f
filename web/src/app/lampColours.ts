/** The colours that lamps can be had in, as the record names them. */
import type { Fn, Part } from "../api/types";

export type LampColour = NonNullable<Fn["colour"]>;

export const LAMP_COLOURS = [
  "red",
  "amber",
  "yellow",
  "green",
  "blue",
  "white",
] as const satisfies readonly LampColour[];

/** Whether a part can be had in any of them: it has lamps, all of one colour. */
export const takesColours = (part: Part | undefined): boolean =>
  part !== undefined &&
  part.lines.some((line) => line.does === "lamp") &&
  LAMP_COLOURS.some((colour) => colour === part.colour);
