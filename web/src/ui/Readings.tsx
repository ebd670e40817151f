/** A few readings of one length, three as a rule, typed one after the other; inch fractions too. */
import { useId, useState } from "react";
import { answered, api } from "../api/client";
import { useStill } from "./useStill";

interface Props {
  label: string;
  values: readonly number[];
  /** Told how the readings change, so that several typed in a row all count; and which one, and what it reads now. */
  onCommit: (edit: (before: readonly number[]) => number[], place: number, mm: number | null) => void;
  /** Shown before the fields; the label is always read out. */
  quiet?: boolean;
  many?: 2 | 3;
}

function replaced(before: readonly number[], n: number, mm: number | null): number[] {
  if (mm === null) return before.filter((_, k) => k !== n);
  const next = [...before];
  next[Math.min(n, next.length)] = Math.round(mm * 1000) / 1000;
  return next;
}

export function Readings({ label, values, onCommit, quiet = false, many = 3 }: Props) {
  const id = useId();
  const [wrong, setWrong] = useState<string | null>(null);
  const [texts, setTexts] = useState<Record<number, string>>({});
  const commit = async (n: number) => {
    const text = texts[n];
    if (text === undefined) return;
    try {
      let mm: number | null = null;
      if (text.trim() !== "") {
        mm = (await answered(api.GET("/api/quantity/length", { params: { query: { text } } }))).mm;
        if (mm <= 0) throw new Error("More than nothing");
      }
      setTexts((before) => Object.fromEntries(Object.entries(before).filter(([key]) => Number(key) !== n)));
      setWrong(null);
      onCommit((before) => replaced(before, n, mm), n + 1, mm === null ? null : Math.round(mm * 1000) / 1000);
    } catch (error) {
      setWrong(error instanceof Error ? error.message : "Not a length");
    }
  };
  const said = useStill(wrong);
  return (
    <div role="group" aria-labelledby={`${id}-label`}>
      <div className="flex items-center gap-1.5">
        <span id={`${id}-label`} className={quiet ? "sr-only" : "w-28 shrink-0 text-[12px] text-faint"}>
          {label}
        </span>
        {[0, 1, 2].slice(0, many).map((n) => (
          <input
            key={n}
            aria-label={`${label}, reading ${n + 1}`}
            className="num h-7 min-w-0 flex-1 rounded border border-faint bg-sheet px-1 text-right focus:border-petrol"
            placeholder={n === values.length ? "…" : ""}
            value={texts[n] ?? (values[n] === undefined ? "" : String(values[n]))}
            onChange={(event) => setTexts((before) => ({ ...before, [n]: event.target.value }))}
            onBlur={() => void commit(n)}
            onKeyDown={(event) => {
              if (event.key === "Enter") void commit(n);
              if (event.key === "Escape") setTexts({});
            }}
          />
        ))}
      </div>
      {said && (
        <p role="alert" className="mt-0.5 text-[11px] text-must">
          {said}
        </p>
      )}
    </div>
  );
}
