/** Which way a lever points at each of its words, and turning that over. */
import type { Fn } from "../../api/types";
import { useDesign } from "../../app/design";
import { Button } from "../../ui/Button";

interface Props {
  fn: Fn;
  onTurnOver: (positions: string[]) => void;
}

export function WhichWay({ fn, onTurnOver }: Props) {
  const ways = useDesign().ways[fn.id];
  if (!ways) return null;
  return (
    <p className="col-span-2 flex items-center gap-2 text-[12px] text-faint">
      <span>{fn.positions.map((word, n) => `${word || "(no word)"} is ${ways[n]}`).join(", ")}</span>
      <Button onClick={() => onTurnOver([...fn.positions].reverse())}>Turn over</Button>
    </p>
  );
}
