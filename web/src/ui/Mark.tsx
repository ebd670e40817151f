/** The severities: each has a shape, a colour and a word. */
import type { Severity } from "../api/types";

export type MarkKind = Severity | "settled" | "waiting";

export const WORD: Record<MarkKind, string> = {
  must: "to fix",
  judge: "to judge",
  note: "note",
  settled: "settled",
  waiting: "waits",
};
export const TEXT: Record<MarkKind, string> = {
  must: "text-must",
  judge: "text-judge",
  note: "text-note",
  settled: "text-ok",
  waiting: "text-faint",
};

const SHAPE: Record<MarkKind, React.ReactNode> = {
  must: <rect width="10" height="10" fill="currentColor" />,
  judge: <path d="M5 .8 9.4 5 5 9.4 .6 5z" fill="none" stroke="currentColor" strokeWidth="1.4" />,
  note: <circle cx="5" cy="5" r="3" fill="currentColor" />,
  waiting: <circle cx="5" cy="5" r="3.6" fill="none" stroke="currentColor" strokeWidth="1.4" />,
  settled: <path d="M1 5.5 4 8.5 9.5 1.5" fill="none" stroke="currentColor" strokeWidth="1.8" />,
};

export function Mark({ kind, className = "" }: { kind: MarkKind; className?: string }) {
  return (
    <svg
      width="10"
      height="10"
      viewBox="0 0 10 10"
      role="img"
      aria-label={WORD[kind]}
      className={`${TEXT[kind]} ${className}`}
    >
      {SHAPE[kind]}
    </svg>
  );
}
