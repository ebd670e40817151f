/** The player: one bar of the whole run of a sheet, played or dragged; below it what its written program does. */
import { useEffect, useMemo, useRef } from "react";
import type { SheetPlan } from "../../api/types";
import { Button } from "../../ui/Button";
import { many, shown } from "../../ui/figures";
import { Mark } from "../../ui/Mark";
import { PACES, usePlayer } from "./store";
import { clock, type Timed, timed } from "./useSheets";

const FILL: Record<string, string> = {
  mask: "var(--judge)",
  trial: "var(--wood)",
  pins: "var(--wood)",
  words: "var(--note)",
  lines: "var(--faint)",
  pocket: "var(--judge)",
  drill: "var(--metal-edge)",
  inner: "var(--petrol)",
  outline: "var(--ink)",
};

export function Player({ plan }: { plan: SheetPlan }) {
  const runs = useMemo(() => timed(plan), [plan]);
  const total = runs.at(-1)?.end ?? 0;
  const { playing, pace, set } = usePlayer();
  useRunning(total);
  return (
    <div className="shrink-0 border-t border-rule bg-sheet px-4 py-2.5">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <Button
          look="solid"
          onClick={() =>
            set({ playing: !playing, at: usePlayer.getState().at >= total ? 0 : usePlayer.getState().at })
          }
          disabled={total === 0}
        >
          {playing ? "Pause" : "Play"}
        </Button>
        <Where runs={runs} total={total} />
        <label className="ml-auto flex items-center gap-2 text-[11px] text-faint">
          pace
          <select
            className="num h-7 rounded border border-faint bg-sheet px-1 text-ink"
            value={pace}
            onChange={(event) => set({ pace: Number(event.target.value) })}
          >
            {PACES.map((p) => (
              <option key={p} value={p}>
                {p} ×
              </option>
            ))}
          </select>
        </label>
      </div>
      <Bar runs={runs} total={total} />
      <Verdict plan={plan} />
    </div>
  );
}

/** While it plays, time goes on, once a frame. */
function useRunning(total: number): void {
  const { playing, set } = usePlayer();
  useEffect(() => {
    if (!playing) return undefined;
    let last = performance.now();
    let frame = requestAnimationFrame(function next(now) {
      const { at, pace } = usePlayer.getState();
      const then = at + ((now - last) / 1000) * pace;
      last = now;
      set({ at: Math.min(total, then), playing: then < total });
      if (then < total) frame = requestAnimationFrame(next);
    });
    return () => cancelAnimationFrame(frame);
  }, [playing, total, set]);
}

function Where({ runs, total }: { runs: Timed[]; total: number }) {
  const at = usePlayer((p) => p.at);
  const n = runs.findIndex((r) => at < r.end);
  const run = runs[n];
  const cut =
    run?.operation.cuts[
      Math.max(
        0,
        run.ends.findIndex((end) => at < end),
      )
    ];
  return (
    <p className="flex min-w-0 flex-1 items-baseline gap-4 text-[12px]">
      <span className="num shrink-0">
        {clock(at)} of {clock(total)}
      </span>
      <span className="min-w-0 truncate text-faint">
        {run ? `${n + 1}. ${run.operation.title}${cut && at > 0 ? `, ${cut.label}` : ""}` : "Done"}
      </span>
    </p>
  );
}

/** Operations as stretches of one bar; a press or a drag goes there, arrow keys a few seconds on. */
function Bar({ runs, total }: { runs: Timed[]; total: number }) {
  const { at, set } = usePlayer();
  const bar = useRef<HTMLDivElement>(null);
  const go = (clientX: number) => {
    const box = bar.current?.getBoundingClientRect();
    if (box && total > 0) set({ at: Math.max(0, Math.min(1, (clientX - box.left) / box.width)) * total });
  };
  return (
    <div
      ref={bar}
      role="slider"
      tabIndex={0}
      aria-label="Time into the run"
      aria-valuemin={0}
      aria-valuemax={Math.round(total)}
      aria-valuenow={Math.round(at)}
      aria-valuetext={`${clock(at)} of ${clock(total)}`}
      className="relative mt-2 flex h-5 cursor-pointer touch-none gap-px overflow-hidden"
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        go(event.clientX);
      }}
      onPointerMove={(event) => event.buttons && go(event.clientX)}
      onKeyDown={(event) => {
        const step = { ArrowRight: 5, ArrowLeft: -5, PageUp: 60, PageDown: -60, Home: -total, End: total }[
          event.key
        ];
        if (step === undefined) return;
        event.preventDefault();
        event.stopPropagation();
        set({ at: Math.max(0, Math.min(total, at + step)) });
      }}
    >
      {runs.map((run, n) => (
        <span
          key={n}
          className="block h-full overflow-hidden px-1 text-[10px]/[20px] whitespace-nowrap"
          style={{
            width: `${(100 * (run.end - run.start)) / Math.max(1, total)}%`,
            background: FILL[run.operation.kind],
            color: "var(--sheet)",
          }}
          title={`${run.operation.title}, ${clock(run.end - run.start)}`}
        >
          {(run.end - run.start) / Math.max(1, total) > 0.12 ? run.operation.title : ""}
        </span>
      ))}
      <span
        aria-hidden="true"
        className="absolute inset-y-0 w-[3px] bg-bar outline-1 outline-ink"
        style={{ left: `calc(${(100 * at) / Math.max(1, total)}% - 1px)` }}
      />
    </div>
  );
}

function Verdict({ plan }: { plan: SheetPlan }) {
  const travel = plan.operations.reduce((sum, op) => sum + op.travel, 0);
  const bound = plan.operations.reduce((sum, op) => sum + op.bound, 0);
  return (
    <div className="mt-2 grid gap-x-6 gap-y-1 text-[11px] min-[1100px]:grid-cols-2">
      <p className="text-faint">
        <span className="num">{shown(travel / 1000)} m</span> travelled without cutting; no order could do
        with less than <span className="num">{shown(bound / 1000)} m</span>
      </p>
      {plan.faults.length === 0 ? (
        <p className="flex items-baseline gap-1.5 text-ok">
          <Mark kind="settled" />
          <span>
            Nothing cut that must stay, nothing left that must go: read back from the file,{" "}
            {many(plan.blocks, "move")}, {clock(plan.written_seconds)}
          </span>
        </p>
      ) : (
        <ul>
          {plan.faults.slice(0, 3).map((fault, n) => (
            <li key={n} className="flex items-baseline gap-1.5 text-must">
              <Mark kind="must" />
              <span>
                {fault.piece || "The sheet"} {fault.what}, {shown(fault.by)} mm at {shown(fault.x)},{" "}
                {shown(fault.y)}
              </span>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
