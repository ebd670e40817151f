/** What the drawer shows: by words, hole, depth, voltage, sealing, and what is on hand. */
import type { PartSheet } from "../../api/types";
import { reach } from "../../panel/shapes";

export interface Filter {
  words: string;
  hole: string;
  depth: string;
  volts: string;
  sealed: boolean;
  onHand: boolean;
}

export const NO_FILTER: Filter = { words: "", hole: "", depth: "", volts: "", sealed: false, onHand: false };

const most = (text: string): number => {
  const figure = Number(text.replace(",", "."));
  return text.trim() && Number.isFinite(figure) ? figure : Infinity;
};

export function meets({ part, on_hand, depth_needed }: PartSheet, filter: Filter): boolean {
  const text = `${part.name} ${part.summary} ${part.family} ${part.colour} ${part.action}`.toLowerCase();
  const words = filter.words.toLowerCase().split(/\s+/).filter(Boolean);
  const { width, height } = reach(part.hole);
  const volts = part.rating?.volts ?? part.feed?.volts ?? Infinity;
  return (
    words.every((w) => text.includes(w)) &&
    Math.max(width, height) <= most(filter.hole) + 0.5 &&
    depth_needed <= most(filter.depth) &&
    (most(filter.volts) === Infinity || volts >= most(filter.volts)) &&
    (!filter.sealed || ["IP65", "IP67"].includes(part.sealing)) &&
    (!filter.onHand || on_hand > 0)
  );
}

interface Props {
  filter: Filter;
  onChange: (filter: Filter) => void;
  shown: number;
}

export function Filters({ filter, onChange, shown }: Props) {
  const set = (changes: Partial<Filter>) => onChange({ ...filter, ...changes });
  const box = (key: "hole" | "depth" | "volts", label: string, words: string) => (
    <label className="flex items-center gap-1">
      {words}
      <input
        aria-label={label}
        inputMode="decimal"
        className="num h-7 w-10 rounded border border-faint bg-sheet px-1 text-right"
        value={filter[key]}
        onChange={(event) => set({ [key]: event.target.value })}
      />
    </label>
  );
  return (
    <div className="flex flex-wrap items-center gap-x-2.5 gap-y-1 px-4 pt-2 text-[12px] text-faint">
      <input
        aria-label="Filter parts"
        placeholder="Filter…"
        className="h-7 w-24 rounded border border-faint bg-sheet px-2 text-ink placeholder:text-faint"
        value={filter.words}
        onChange={(event) => set({ words: event.target.value })}
      />
      {box("hole", "Hole at most, mm", "hole ≤")}
      {box("depth", "Depth at most, mm", "deep ≤")}
      {box("volts", "Volts at least", "V ≥")}
      <label className="flex items-center gap-1">
        <input
          type="checkbox"
          checked={filter.sealed}
          onChange={(event) => set({ sealed: event.target.checked })}
        />
        sealed
      </label>
      <label className="flex items-center gap-1">
        <input
          type="checkbox"
          checked={filter.onHand}
          onChange={(event) => set({ onHand: event.target.checked })}
        />
        on hand
      </label>
      <span className="num">{shown}</span>
    </div>
  );
}
