/** Which way a lever points at each of its words, and turning that over. */
import type { Fn, Part } from "../../api/types";
import { Button } from "../../ui/Button";

const WAYS: Record<number, string> = { 0: "right", 90: "up", 180: "left", 270: "down" };

interface Props {
  fn: Fn;
  part: Part | undefined;
  onTurnOver: (positions: string[]) => void;
}

export function WhichWay({ fn, part, onTurnOver }: Props) {
  if (!part || part.detents || fn.positions.length < 2 || part.positions.length < fn.positions.length)
    return null;
  const turn = fn.place?.turn ?? 0;
  const said = fn.positions.map((word, n) => {
    const angle = ((((part.positions[n]?.angle ?? 0) + turn) % 360) + 360) % 360;
    const way = WAYS[angle];
    return way ? `${word || "(no word)"} is ${way}` : null;
  });
  if (said.some((words) => words === null)) return null;
  return (
    <p className="col-span-2 flex items-center gap-2 text-[12px] text-faint">
      <span>{said.join(", ")}</span>
      <Button onClick={() => onTurnOver([...fn.positions].reverse())}>Turn over</Button>
    </p>
  );
}
