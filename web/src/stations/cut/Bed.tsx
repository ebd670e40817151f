/** A sheet on the bed of its machine: what has been cut so far is open, what comes next dashed. */
import { useMemo, useRef } from "react";
import type { SheetLine, SheetPlan } from "../../api/types";
import { useDesign } from "../../app/design";
import { Looking } from "../../app/Looking";
import { Canvas } from "../../canvas/Canvas";
import { Tag } from "../../canvas/Tag";
import { useCamera } from "../../canvas/useCamera";
import { inkOn } from "../../panel/Plate";
import { shown } from "../../ui/figures";
import { usePlayer } from "./store";
import { type Timed, timed } from "./useSheets";

const ENGRAVED = new Set(["mask", "trial", "words", "lines"]);

export function Bed({ sheet, plan }: { sheet: SheetLine; plan: SheetPlan | undefined }) {
  const { id } = useDesign();
  const frame = useRef<HTMLDivElement>(null);
  const extent = { x: 0, y: 0, width: sheet.bed_width, height: sheet.bed_height };
  const camera = useCamera(frame, extent, { name: `bed ${id} ${sheet.machine}`, room: 34 });
  const { scale } = camera.viewport;
  const s = 1 / scale;
  const tag = { scale, ink: "var(--ink)", ground: "var(--sheet)" };
  return (
    <>
      <Canvas
        camera={camera}
        frame={frame}
        className="max-[900px]:h-72"
        drawing={{ role: "img", "aria-label": `${sheet.title} on the bed` }}
      >
        <rect
          width={sheet.bed_width}
          height={sheet.bed_height}
          fill="var(--table)"
          stroke="var(--faint)"
          strokeWidth={s}
        />
        <Ruler width={sheet.bed_width} height={sheet.bed_height} s={s} />
        <g transform={`translate(${sheet.at_x} ${sheet.at_y})`}>
          <rect
            width={sheet.width}
            height={sheet.height}
            fill={sheet.colour}
            stroke="var(--body-edge)"
            strokeWidth={s}
          />
          {sheet.taken.map((box, n) => (
            <rect key={n} {...box} fill="var(--bar)" opacity={0.6} stroke="var(--bar-edge)" strokeWidth={s} />
          ))}
          {plan && <Pieces sheet={sheet} plan={plan} s={s} />}
          {plan && <Done sheet={sheet} plan={plan} s={s} />}
          {plan?.faults.map((fault, n) => (
            <circle
              key={n}
              cx={fault.x}
              cy={fault.y}
              r={7 * s}
              fill="none"
              stroke="var(--on-must)"
              strokeWidth={2.5 * s}
            />
          ))}
          {sheet.rest && sheet.rest.width * scale > 130 && (
            <Tag
              {...tag}
              x={sheet.rest.x + sheet.rest.width / 2}
              y={sheet.rest.y + sheet.rest.height / 2}
              text={`left over ${shown(sheet.rest.width)} × ${shown(sheet.rest.height)}`}
            />
          )}
          <g stroke="var(--bar)" strokeWidth={2 * s} fill="none">
            <circle r={6 * s} />
            <path d={`M${-10 * s} 0H${10 * s}M0 ${-10 * s}V${10 * s}`} />
          </g>
        </g>
      </Canvas>
      <div className="flex min-h-9 items-center gap-3 border-t border-rule bg-card px-4 text-[11px] text-faint">
        <p className="min-w-0 flex-1 truncate">
          The origin is the sheet&rsquo;s lower left corner; dashed is still to come
          {plan?.pieces.some((piece) => piece.corners !== "") && "; red: corners that stay round"}
        </p>
        <Looking camera={camera} />
      </div>
    </>
  );
}

/** Ticks and figures along the bed's upper and left edge. */
function Ruler({ width, height, s }: { width: number; height: number; s: number }) {
  const step = [10, 20, 50, 100, 200, 500].find((mm) => mm / s > 46) ?? 1000;
  const across = Array.from({ length: Math.floor(width / step) + 1 }, (_, n) => n * step);
  const up = Array.from({ length: Math.floor(height / step) + 1 }, (_, n) => n * step);
  const words = { fontFamily: "var(--font-mono)", fontSize: 9, fill: "var(--faint)", stroke: "none" };
  return (
    <g stroke="var(--faint)" strokeWidth={s}>
      <path
        d={
          across.map((x) => `M${x} ${height}v${5 * s}`).join("") + up.map((y) => `M0 ${y}h${-5 * s}`).join("")
        }
      />
      {across.map((x) => (
        <text
          key={x}
          {...words}
          textAnchor="middle"
          transform={`translate(${x} ${height + 9 * s}) scale(${s} ${-s})`}
        >
          {x}
        </text>
      ))}
      {up.map((y) => (
        <text
          key={y}
          {...words}
          textAnchor="end"
          dominantBaseline="central"
          transform={`translate(${-8 * s} ${y}) scale(${s} ${-s})`}
        >
          {y}
        </text>
      ))}
    </g>
  );
}

/** The pieces as they are drawn: outlines and openings dashed, in a line that shows on the sheet's colour. */
function Pieces({ sheet, plan, s }: { sheet: SheetLine; plan: SheetPlan; s: number }) {
  const line = inkOn(sheet.colour);
  return (
    <g fill="none" stroke={line} strokeWidth={1.1 * s} strokeDasharray={`${4 * s} ${3 * s}`}>
      {plan.pieces.map((piece, n) => (
        <g key={n}>
          <path d={piece.outline} />
          <path d={piece.openings} opacity={0.75} />
          <path d={piece.letters} fill={line} stroke="none" opacity={0.35} />
          <path d={piece.lines} opacity={0.5} strokeDasharray="none" />
          <path d={piece.corners} fill="var(--must)" stroke="var(--must)" strokeDasharray="none" />
        </g>
      ))}
    </g>
  );
}

/** What is cut so far, and where the tool is. */
function Done({ sheet, plan, s }: { sheet: SheetLine; plan: SheetPlan; s: number }) {
  const at = usePlayer((p) => p.at);
  const runs = useMemo(() => timed(plan), [plan]);
  return (
    <g fill="none">
      {runs.map((run, n) => (
        <Cuts key={n} sheet={sheet} run={run} many={run.ends.filter((end) => end <= at).length} s={s} />
      ))}
      <Tool runs={runs} at={at} s={s} />
    </g>
  );
}

function Cuts({ sheet, run, many, s }: { sheet: SheetLine; run: Timed; many: number; s: number }) {
  const path = useMemo(
    () =>
      run.operation.cuts
        .slice(0, many)
        .map((cut) => cut.path)
        .join(""),
    [run, many],
  );
  if (many === 0) return null;
  const { kind, width } = run.operation;
  if (ENGRAVED.has(kind))
    return (
      <path
        d={path}
        stroke={sheet.under || inkOn(sheet.colour)}
        strokeWidth={Math.max(width, 0.8 * s)}
        strokeLinejoin="round"
      />
    );
  const open = kind === "inner" || kind === "drill" || kind === "pins";
  return (
    <path
      d={path}
      fill={open ? "var(--table)" : "none"}
      stroke={inkOn(sheet.colour) === "var(--ink-light)" ? "var(--night-mark)" : "var(--chosen)"}
      strokeWidth={Math.max(width, (kind === "outline" ? 2.4 : 1.4) * s)}
      strokeLinejoin="round"
    />
  );
}

/** The tool: on its way along the cut that is under way, with a dashed line to where that began. */
function Tool({ runs, at, s }: { runs: Timed[]; at: number; s: number }) {
  const run = runs.find((r) => at < r.end && at >= r.start);
  if (!run || at <= 0) return null;
  const n = run.ends.findIndex((end) => at < end);
  const cut = run.operation.cuts[n];
  if (!cut) return null;
  const before = n > 0 ? (run.ends[n - 1] ?? run.start) : run.start;
  const share = cut.seconds > 0 ? (at - before) / cut.seconds : 0;
  return (
    <g>
      <path d={cut.path} stroke="var(--bar)" strokeWidth={1.4 * s} />
      <Dot path={cut.path} share={share} s={s} fallback={cut} />
    </g>
  );
}

function Dot({
  path,
  share,
  s,
  fallback,
}: {
  path: string;
  share: number;
  s: number;
  fallback: { x: number; y: number };
}) {
  const line = useMemo(() => {
    const made = document.createElementNS("http://www.w3.org/2000/svg", "path");
    made.setAttribute("d", path);
    return { made, length: path ? made.getTotalLength() : 0 };
  }, [path]);
  const spot = line.length > 0 ? line.made.getPointAtLength(share * line.length) : fallback;
  return (
    <circle cx={spot.x} cy={spot.y} r={4.5 * s} fill="var(--bar)" stroke="var(--bar-edge)" strokeWidth={s} />
  );
}
