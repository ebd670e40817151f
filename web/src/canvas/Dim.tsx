/** A dimension on a drawing that is typed where it stands: a click, or Enter, turns the figure into a field. */
import { shown } from "../ui/figures";
import { inField, useLength } from "../ui/useLength";
import type { PointPx } from "./camera";

interface Props {
  /** Where its middle stands in the window. */
  at: PointPx;
  /** What it is, to a screen reader: “Opening, width”. */
  label: string;
  value: number;
  least?: number;
  places?: number;
  /** Words before the figure: “eye,”. */
  before?: string;
  after?: string;
  className?: string;
  onCommit: (mm: number) => void;
}

export function Dim({
  at,
  label,
  value,
  least = 0,
  places = 1,
  before = "",
  after = "",
  className = "",
  onCommit,
}: Props) {
  const { text, wrong, setText, commit, giveUp } = useLength(value, least, onCommit);
  const place = { left: at.x, top: at.y };
  if (text === null)
    return (
      <button
        type="button"
        aria-label={`${label}: ${before}${shown(value, places)}${after}`}
        title="Click to type it"
        className={`num absolute -translate-1/2 rounded border border-transparent bg-desk px-1 leading-[16px] text-ink hover:border-petrol ${className}`}
        style={place}
        onPointerDown={(event) => event.stopPropagation()}
        onClick={() => setText(inField(value))}
      >
        {before}
        {shown(value, places)}
        {after}
      </button>
    );
  return (
    <span
      className="absolute z-10 -translate-1/2"
      style={place}
      onPointerDown={(event) => event.stopPropagation()}
    >
      <input
        autoFocus
        aria-label={label}
        aria-invalid={wrong !== null}
        className="num h-6 w-20 rounded border border-petrol bg-sheet px-1 text-right aria-invalid:border-must"
        value={text}
        onFocus={(event) => event.currentTarget.select()}
        onChange={(event) => setText(event.target.value)}
        onBlur={() => void commit()}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === "Enter") event.currentTarget.blur();
          if (event.key === "Escape") giveUp();
        }}
      />
      {wrong && (
        <span
          role="alert"
          className="absolute top-6 left-0 rounded bg-sheet px-1 text-[11px] whitespace-nowrap text-must"
        >
          {wrong}
        </span>
      )}
    </span>
  );
}
