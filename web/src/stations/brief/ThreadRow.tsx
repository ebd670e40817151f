import type { MouseEvent } from "react";
import type { DesignView, Fn } from "../../api/types";
import { useSession } from "../../app/session";

export const STAGES = [
  ["part", "part"],
  ["place", "place"],
  ["legend", "legend"],
  ["pin", "pin"],
  ["wire", "wire"],
  ["proof", "proof"],
] as const;

interface Props {
  fn: Fn;
  view: DesignView;
  onPick: (event: MouseEvent) => void;
}

/** A function in one line: its name and wishes, then the stages it has passed. */
export function ThreadRow({ fn, view, onPick }: Props) {
  const selected = useSession((s) => s.selection.includes(fn.id));
  const hot = useSession((s) => s.hot.includes(fn.id));
  const thread = view.threads[fn.id];
  const reached = STAGES.map(([key]) => thread?.[key] ?? false);
  const words = STAGES.filter((_, n) => reached[n]).map(([, word]) => word);
  const part = view.design.parts.find((p) => p.id === fn.part);
  return (
    <li>
      <button
        id={`row-${fn.id}`}
        data-row={fn.id}
        type="button"
        aria-pressed={selected}
        className={`flex h-[30px] w-full items-center justify-between gap-3 px-3.5 text-left outline-offset-[-2px] hover:bg-warm ${selected || hot ? "bg-wash!" : ""}`}
        onClick={onPick}
      >
        <span className="min-w-0 truncate">
          {fn.name} <span className="pl-1.5 text-[12px] text-faint">{fn.want || part?.name || ""}</span>
          <Load fn={fn} />
          <Standing fn={fn} />
        </span>
        <span className="sr-only">{words.length ? `has ${words.join(", ")}` : "nothing chosen yet"}</span>
        <Thread reached={reached} />
      </button>
    </li>
  );
}

function Load({ fn }: { fn: Fn }) {
  const { volts, amps, bus } = fn.switches;
  if (!amps && !bus) return null;
  const text = [volts && `${volts} V`, amps && `${amps} A`, bus && `bus ${bus}`].filter(Boolean).join(" ");
  return fn.want.includes(`${amps} A`) && !bus ? null : (
    <span className="num pl-1.5 text-[11px] text-faint">{text}</span>
  );
}

function Standing({ fn }: { fn: Fn }) {
  const says = [
    fn.risk === "emergency" && "emergency",
    fn.risk === "guarded" && "guarded",
    fn.state !== "wanted" && fn.state,
  ].filter(Boolean);
  return says.length > 0 ? (
    <i className="pl-1.5 text-[11px] text-judge not-italic">{says.join(", ")}</i>
  ) : null;
}

function Thread({ reached }: { reached: readonly boolean[] }) {
  const at = (n: number) => 17.5 + n * 35;
  return (
    <svg width="210" height="12" viewBox="0 0 210 12" aria-hidden="true" className="shrink-0">
      <path d={`M${at(0)} 6H${at(reached.length - 1)}`} stroke="var(--rule)" />
      {reached.map((yes, n) => (
        <g key={n}>
          {yes && n > 0 && reached[n - 1] && (
            <path d={`M${at(n - 1)} 6H${at(n)}`} stroke="var(--petrol)" strokeWidth="1.5" />
          )}
          <circle
            cx={at(n)}
            cy="6"
            r="3.8"
            fill={yes ? "var(--petrol)" : "var(--sheet)"}
            stroke={yes ? "var(--petrol)" : "var(--faint)"}
          />
        </g>
      ))}
    </svg>
  );
}
