/** How far long work has got, and a way to stop it. */
import { Button } from "./Button";

interface Props {
  label: string;
  /** The share that is done, from 0 to 1; null where that is not known. */
  done: number | null;
  words: string;
  onStop: () => void;
}

export function Progress({ label, done, words, onStop }: Props) {
  return (
    <div
      role="status"
      className="flex items-center gap-3 border-b border-rule bg-sheet px-4 py-2 text-[12px]"
    >
      <b>{label}</b>
      <progress className="h-2 w-40 accent-petrol" aria-label={label} max={1} value={done ?? undefined} />
      <span className="num w-10 text-right">{done === null ? "" : `${Math.round(done * 100)} %`}</span>
      <span className="min-w-0 flex-1 truncate text-faint">{words}</span>
      <Button onClick={onStop}>Stop</Button>
    </div>
  );
}
