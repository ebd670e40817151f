/** What the schools of building a plate are called. */
import type { Design } from "../api/types";

export type School = Design["school"];

export const SCHOOLS = [
  ["three-layer", "Three layers: face, diffuser, back"],
  ["two-layer", "Two layers: face, back"],
  ["metal", "Metal plate"],
  ["acrylic", "Single acrylic plate"],
  ["reverse", "Clear face, painted behind, and back"],
  ["printed", "Printed plate"],
] as const satisfies readonly (readonly [School, string])[];
