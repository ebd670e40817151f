/** The lenses of captions as their lamps light them: a small picture of each, and least over mean. */
import type { LampsView } from "../../api/types";
import { useSession } from "../../app/session";
import { many, shown } from "../../ui/figures";
import { EvenBar } from "./EvenBar";

type Box = LampsView["boxes"][number];

export function Boxes({ boxes, even }: { boxes: readonly Box[]; even: number }) {
  const { selection, select } = useSession();
  const rows = [...boxes].sort((a, b) => a.evenness - b.evenness);
  return (
    <section aria-label="Captions" className="border-t border-rule">
      <h3 className="flex justify-between gap-2 px-3.5 pt-2.5 pb-1 text-[13px] font-semibold">
        Captions
        <span className="text-[11px] font-normal text-faint">least / mean of the lens</span>
      </h3>
      <ul>
        {rows.map((box) => (
          <li key={box.function}>
            <button
              type="button"
              aria-pressed={selection.includes(box.function)}
              className={`grid w-full grid-cols-[52px_minmax(0,1fr)_34px] items-center gap-x-2 border-t border-rule px-3.5 py-1.5 text-left hover:bg-wash ${selection.includes(box.function) ? "bg-wash" : ""}`}
              onClick={() => select([box.function])}
            >
              <Lens box={box} />
              <span className="col-span-2 truncate">{box.name}</span>
              <EvenBar share={box.evenness} limit={even} tone={box.standing} />
              <span className={`num text-right text-${box.standing}`}>{shown(box.evenness, 2)}</span>
              <span className="num col-span-2 col-start-2 text-[11px]/[14px] whitespace-normal text-faint">
                {many(box.lamps, "LED")} {box.side ? "at its ends" : `${shown(box.depth, 0)} mm behind`},{" "}
                {shown(box.least, 0)} to {shown(box.mean, 0)} cd/m²
              </span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** The lens, each spot as bright as it is beside the brightest. */
function Lens({ box }: { box: Box }) {
  const columns = box.rows[0]?.length ?? 1;
  return (
    <svg
      viewBox={`0 0 ${columns} ${box.rows.length}`}
      className="row-span-3 w-13 self-start bg-(--night-plate)"
      preserveAspectRatio="xMidYMid meet"
      aria-hidden="true"
    >
      {box.rows.map((row, n) =>
        row.map((share, k) => (
          <rect
            key={`${n} ${k}`}
            x={k}
            y={box.rows.length - 1 - n}
            width={1.02}
            height={1.02}
            fill="var(--night-glow)"
            fillOpacity={share}
          />
        )),
      )}
    </svg>
  );
}
