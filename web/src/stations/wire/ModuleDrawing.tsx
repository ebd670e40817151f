/** The module from behind: bodies, on each its terminals and the ends of its lines. Only what is pointed at is drawn anew. */
import { memo, useMemo } from "react";
import type { ModuleBehind, Row } from "../../api/types";
import { useSession } from "../../app/session";
import { Tag } from "../../canvas/Tag";
import type { Lit } from "./layout";
import { press } from "./press";
import type { Grab } from "./usePull";

interface Props {
  module: ModuleBehind;
  at: { x: number; y: number };
  scale: number;
  rows: readonly Row[];
  lit: Lit;
  picked: string | null;
  onOver: (lines: readonly string[]) => void;
  onPick: (line: string) => void;
  onGrab: Grab;
}

const NONE: readonly string[] = [];
/** Height of a terminal's mark on the screen (px). */
const MARK = 9;

export function ModuleDrawing({ module, at, scale, rows, lit, picked, onOver, onPick, onGrab }: Props) {
  const s = 1 / scale;
  const ends = useMemo(() => new Map(module.ends.map((end) => [end.line, end])), [module]);
  const ofOwner = useMemo(() => {
    const found = new Map<string, string[]>();
    for (const row of rows) found.set(row.owner, [...(found.get(row.owner) ?? []), row.line]);
    return found;
  }, [rows]);
  const owners = useOwners(rows, lit);
  const tagged = module.bodies.filter((b) => owners.has(b.function));
  return (
    <g transform={`translate(${at.x} ${at.y})`}>
      <path d={module.path} fill={module.colour} stroke="var(--body-edge)" strokeWidth={s} />
      {module.bodies.map((b) => (
        <Body
          key={b.function}
          body={b}
          lit={owners.has(b.function)}
          s={s}
          lines={ofOwner.get(b.function) ?? NONE}
          onOver={onOver}
        />
      ))}
      <Terminals terminals={module.terminals} />
      {rows.map((row) => {
        const end = ends.get(row.line);
        return (
          end && (
            <End
              key={row.line}
              row={row}
              x={end.x}
              y={end.y}
              lit={lit.has(row.line)}
              picked={picked === row.line}
              onOver={onOver}
              onPick={onPick}
              onGrab={onGrab}
            />
          )
        );
      })}
      {tagged.map((b) => (
        <Tag
          key={b.function}
          x={b.x}
          y={b.y + b.height / 2 + 13 * s}
          scale={scale}
          text={b.name}
          ink="var(--ink)"
          ground="var(--sheet)"
          edge="var(--chosen)"
        />
      ))}
    </g>
  );
}

interface BodyProps {
  body: ModuleBehind["bodies"][number];
  lit: boolean;
  s: number;
  lines: readonly string[];
  onOver: Props["onOver"];
}

const Body = memo(function Body({ body, lit, s, lines, onOver }: BodyProps) {
  return (
    <path
      d={body.path}
      fill={lit ? "var(--wash)" : "var(--body-light)"}
      stroke={lit ? "var(--chosen)" : "var(--body-edge)"}
      strokeWidth={(lit ? 2 : 1) * s}
      className="cursor-pointer"
      onMouseEnter={() => onOver(lines)}
      onMouseLeave={() => onOver(NONE)}
      onClick={() => useSession.getState().select([body.function])}
    >
      <title>{body.name}</title>
    </path>
  );
});

interface TerminalsProps {
  terminals: ModuleBehind["terminals"];
}

/** Every terminal as a dot, hollow where no wire ends; what is read or driven has the end of its line over it. */
const Terminals = memo(function Terminals({ terminals }: TerminalsProps) {
  return (
    <g stroke="var(--body-ink)" strokeWidth={0.25}>
      {terminals.map((t) => (
        <circle
          key={`${t.function} ${t.name}`}
          cx={t.x}
          cy={t.y}
          r={0.55}
          fill={t.net ? "var(--body-ink)" : "var(--sheet)"}
        >
          <title>{`${t.name}: ${t.net ? `on ${t.net}` : "no wire ends here"}`}</title>
        </circle>
      ))}
    </g>
  );
});

type MarksProps = Pick<Props, "module" | "at" | "rows" | "lit" | "scale">;

/** What is stamped at the terminals of the parts that are pointed at, over their wires. */
export function Marks({ module, at, rows, lit, scale }: MarksProps) {
  const owners = useOwners(rows, lit);
  return (
    <g transform={`translate(${at.x} ${at.y})`}>
      {[...owners].map((of) => (
        <MarksOfOne key={of} terminals={module.terminals.filter((t) => t.function === of)} scale={scale} />
      ))}
    </g>
  );
}

/** The functions of the lines that are lit, and those that are selected. */
function useOwners(rows: readonly Row[], lit: Lit): ReadonlySet<string> {
  const chosen = useSession((session) => session.selection);
  return new Set([...rows.filter((row) => lit.has(row.line)).map((row) => row.owner), ...chosen]);
}

/** Where there is room for them. */
function MarksOfOne({ terminals: mine, scale }: TerminalsProps & { scale: number }) {
  const apart = Math.min(
    ...mine.flatMap((t, n) => mine.slice(n + 1).map((o) => Math.hypot(t.x - o.x, t.y - o.y))),
  );
  if (apart * scale < MARK) return null;
  return (
    <g fontSize={MARK} fontWeight={600} fill="var(--ink)" textAnchor="middle" pointerEvents="none">
      {mine.map((t) => (
        <text
          key={t.name}
          transform={`translate(${t.x} ${t.y + 1.3}) scale(${1 / scale} ${-1 / scale})`}
          stroke="var(--sheet)"
          strokeWidth={2.5}
          paintOrder="stroke"
        >
          {t.name}
        </text>
      ))}
    </g>
  );
}

interface EndProps {
  row: Row;
  x: number;
  y: number;
  lit: boolean;
  picked: boolean;
  onOver: Props["onOver"];
  onPick: Props["onPick"];
  onGrab: Grab;
}

const End = memo(function End({ row, x, y, lit, picked, onOver, onPick, onGrab }: EndProps) {
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={`${row.function}, ${row.terminal}`}
      aria-pressed={picked}
      aria-description={row.pin ? `${row.board} pin ${row.pin}` : "without a pin"}
      className="cursor-pointer"
      onMouseEnter={() => onOver([row.line])}
      onMouseLeave={() => onOver(NONE)}
      onFocus={() => onOver([row.line])}
      onBlur={() => onOver(NONE)}
      onPointerDown={(event) => !row.via && onGrab(row.line, event)}
      onClick={() => onPick(row.line)}
      onKeyDown={press(() => onPick(row.line))}
    >
      <circle cx={x} cy={y} r={1.27} fill="transparent" />
      <circle
        cx={x}
        cy={y}
        r={lit ? 1.1 : 0.8}
        fill={row.pin ? "var(--body-ink)" : "var(--sheet)"}
        stroke={row.pin ? "var(--sheet)" : "var(--on-judge)"}
        strokeWidth={row.pin ? 0.15 : 0.4}
      />
    </g>
  );
});
