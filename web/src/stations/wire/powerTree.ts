/** Where each node of the tree of power stands: leaves a row each, the others half way along what hangs on them. */
import type { PowerView } from "../../api/types";

export type PowerNode = PowerView["roots"][number];

export interface Spot {
  node: PowerNode;
  column: number;
  row: number;
  above: Spot | null;
}

export function spotsOf(roots: readonly PowerNode[]): Spot[] {
  const found: Spot[] = [];
  let rows = 0;
  const lay = (node: PowerNode, column: number, above: Spot | null): Spot => {
    const spot: Spot = { node, column, row: 0, above };
    found.push(spot);
    const below = node.children.map((child) => lay(child, column + 1, spot));
    const [first, last] = [below[0], below[below.length - 1]];
    spot.row = first && last ? (first.row + last.row) / 2 : rows++;
    return spot;
  };
  roots.forEach((root) => lay(root, 0, null));
  return found;
}

/** Amperes as they are said: three figures at most, milliamperes below a tenth. */
export function amps(value: number): string {
  if (value === 0) return "0 A";
  return value < 0.0995 ? `${Number((1000 * value).toPrecision(2))} mA` : `${Number(value.toPrecision(3))} A`;
}
