/** The section along the line: sheets, bushes, nuts, bodies, screws, standoffs, boards, bars, and the depth left. */
import { useRef } from "react";
import type { SectionView, StackView } from "../../api/types";
import { Canvas } from "../../canvas/Canvas";
import { type Named, Names } from "../../canvas/Names";
import { Tag } from "../../canvas/Tag";
import { useCamera } from "../../canvas/useCamera";
import { shown } from "../../ui/figures";
import { type Line, useStack } from "./store";
import { useSection } from "./useStackView";

type Piece = SectionView["pieces"][number];

/** What each kind is drawn in, in the order in which they lie over each other. */
const FILL: Record<string, string> = {
  plug: "none",
  tall: "var(--body-light)",
  body: "var(--body-light)",
  board: "var(--board)",
  front: "var(--body)",
  bush: "var(--brass)",
  key: "var(--brass-dark)",
  nut: "var(--brass-dark)",
  washer: "var(--metal-edge)",
  standoff: "var(--brass)",
  lamp: "var(--bar)",
  edging: "var(--body-light)",
  pin: "var(--metal-edge)",
  screw: "var(--metal)",
};
const ORDER = ["sheet", ...Object.keys(FILL)];

export function SectionDrawing({ stack }: { stack: StackView }) {
  const lines = useStack((s) => s.lines);
  const line = lines[stack.module] ?? stack.line;
  const section = useSection(stack.module, line);
  return (
    <div className="flex h-[250px] shrink-0 flex-col border-t border-rule bg-sheet min-[1500px]:h-[340px] max-[900px]:h-60">
      <div className="flex items-baseline justify-between gap-4 px-4 pt-2 text-[12px]">
        <h3 className="font-semibold">{titleOf(line)}</h3>
        {section.data && (
          <p className="num text-[11px]">
            deepest {shown(section.data.deepest)},{" "}
            <span className={section.data.free < 0 ? "font-semibold text-must" : ""}>
              {shown(section.data.free)} free
            </span>{" "}
            of {shown(section.data.depth)}
          </p>
        )}
      </div>
      {section.data && <Drawn section={section.data} name={`section ${stack.module}`} />}
    </div>
  );
}

function titleOf(line: Line): string {
  if (line.y0 === line.y1) return `Section through y ${shown(line.y0)}, looking up`;
  if (line.x0 === line.x1) return `Section through x ${shown(line.x0)}`;
  return `Section from ${shown(line.x0)}, ${shown(line.y0)} to ${shown(line.x1)}, ${shown(line.y1)}`;
}

function Drawn({ section, name }: { section: SectionView; name: string }) {
  const frame = useRef<HTMLDivElement>(null);
  const out = Math.max(0, ...section.pieces.map((p) => -p.z0));
  const deep = Math.max(section.deepest, ...section.pieces.filter((p) => p.kind === "bar").map((p) => p.z0));
  const extent = { x: 0, y: -deep, width: section.length * 1.17, height: deep + out };
  const camera = useCamera(frame, extent, { name: `${name} ${section.length}`, room: 34 });
  const { scale } = camera.viewport;
  const s = 1 / scale;
  const pieces = [...section.pieces].sort((a, b) => ORDER.indexOf(a.kind) - ORDER.indexOf(b.kind));
  return (
    <Canvas
      camera={camera}
      frame={frame}
      offersFit
      drawing={{ role: "img", "aria-label": `Section, ${shown(section.length)} mm long` }}
    >
      {pieces.map((p, n) =>
        p.kind === "bar" ? <Bar key={n} piece={p} scale={scale} /> : <Solid key={n} piece={p} s={s} />,
      )}
      <Names things={bodiesOf(section, deep)} camera={camera} onSheet keepOff={unnamed(section, s)} />
      <Depth x={section.length + 18 * s} from={0} to={section.plate} scale={scale} />
      {section.deepest > section.plate + 0.05 && (
        <Depth x={section.length + 46 * s} from={0} to={section.deepest} scale={scale} />
      )}
    </Canvas>
  );
}

/** What has no name of its own: sheets, fronts, room for plugs, and the depths at the right. */
const unnamed = (section: SectionView, s: number) => [
  ...section.pieces
    .filter((p) => p.kind !== "body" && p.kind !== "bar")
    .map((p) => ({ x: p.t0, y: -p.z1, width: p.t1 - p.t0, height: p.z1 - p.z0 })),
  { x: section.length, y: -section.deepest - 20 * s, width: 60 * s, height: section.deepest + 20 * s },
];

/** Each body once, from its front to its back, with how deep it reaches. */
function bodiesOf(section: SectionView, free: number): Named[] {
  const found = new Map<string, Named>();
  for (const p of section.pieces.filter((x) => ["body", "board"].includes(x.kind) && x.name)) {
    const before = found.get(p.name);
    const left = Math.min(p.t0, before ? before.x - before.width / 2 : p.t0);
    const right = Math.max(p.t1, before ? before.x + before.width / 2 : p.t1);
    const top = Math.max(-p.z0, before ? before.y + before.height / 2 : -p.z0);
    const bottom = Math.min(-p.z1, before ? before.y - before.height / 2 : -p.z1);
    found.set(p.name, {
      id: p.name,
      name: p.name,
      extra: shown(-bottom),
      wrong: -bottom > free,
      x: (left + right) / 2,
      y: (top + bottom) / 2,
      width: right - left,
      height: top - bottom,
    });
  }
  return [...found.values()];
}

function Solid({ piece: p, s }: { piece: Piece; s: number }) {
  return (
    <rect
      x={p.t0}
      y={-p.z1}
      width={Math.max(0, p.t1 - p.t0)}
      height={Math.max(0, p.z1 - p.z0)}
      fill={p.kind === "sheet" ? (p.colour ?? "var(--sheet)") : (FILL[p.kind] ?? "none")}
      stroke="var(--body-edge)"
      strokeWidth={s}
      strokeDasharray={p.kind === "plug" ? `${3 * s} ${2 * s}` : undefined}
    >
      <title>{`${p.name}, ${p.kind}: ${shown(p.z0)} to ${shown(p.z1)}`}</title>
    </rect>
  );
}

/** Where a bar behind begins. */
function Bar({ piece, scale }: { piece: Piece; scale: number }) {
  const s = 1 / scale;
  return (
    <g>
      <path
        d={`M${piece.t0} ${-piece.z0}H${piece.t1}`}
        stroke="var(--bar-edge)"
        strokeWidth={2 * s}
        strokeDasharray={`${6 * s} ${4 * s}`}
      />
      <Tag
        x={(piece.t0 + piece.t1) / 2}
        y={-piece.z0 - 12 * s}
        scale={scale}
        text={`${piece.name} at ${shown(piece.z0)}`}
        ink="var(--ink)"
        ground="var(--sheet)"
      />
    </g>
  );
}

/** A depth as a dimension line at the right. */
function Depth({ x, from, to, scale }: { x: number; from: number; to: number; scale: number }) {
  const s = 1 / scale;
  return (
    <g stroke="var(--faint)" strokeWidth={s} fill="none">
      <path d={`M${x} ${-from}V${-to}M${x - 4 * s} ${-from}h${8 * s}M${x - 4 * s} ${-to}h${8 * s}`} />
      <Tag
        x={x}
        y={-to - 10 * s}
        scale={scale}
        text={shown(to - from)}
        ink="var(--ink)"
        ground="var(--sheet)"
      />
    </g>
  );
}
