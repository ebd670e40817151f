/** The materials to choose from, each with what speaks against it here. */
import type { Design } from "../../api/types";
import { useBrief } from "./useBrief";

type Material = Design["stack"][number]["material"];

export function useMaterials(): readonly (readonly [Material, string])[] {
  const found = useBrief().data?.materials ?? [];
  return found.map((m) => [m.id, [m.name, m.against.join(", ")].filter(Boolean).join(": ")] as const);
}
