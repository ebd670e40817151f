/** The module from behind: bodies, and on each the ends of its lines. */
import type { ModuleBehind, Row } from "../../api/types";
import { useSession } from "../../app/session";
import { Tag } from "../../canvas/Tag";
import type { Lit } from "./layout";
import { press } from "./press";

interface Props {
  module: ModuleBehind;
  at: { x: number; y: number };
  scale: number;
  rows: readonly Row[];
  lit: Lit;
  picked: string | null;
  onOver: (lines: readonly string[]) => void;
  onPick: (line: string) => void;
}

export function ModuleDrawing({ module, at, scale, rows, lit, picked, onOver, onPick }: Props) {
  const select = useSession((s) => s.select);
  const s = 1 / scale;
  const owners = new Set(rows.filter((row) => lit.has(row.line)).map((row) => row.owner));
  const ends = new Map(module.ends.map((end) => [end.line, end]));
  const tagged = module.bodies.filter((b) => owners.has(b.function));
  return (
    <g transform={`translate(${at.x} ${at.y})`}>
      <path d={module.path} fill={module.colour} stroke="var(--body-edge)" strokeWidth={s} />
      {module.bodies.map((b) => (
        <path
          key={b.function}
          d={b.path}
          fill={owners.has(b.function) ? "var(--wash)" : "var(--body-light)"}
          stroke={owners.has(b.function) ? "var(--chosen)" : "var(--body-edge)"}
          strokeWidth={(owners.has(b.function) ? 2 : 1) * s}
          className="cursor-pointer"
          onMouseEnter={() => onOver(rows.filter((r) => r.owner === b.function).map((r) => r.line))}
          onMouseLeave={() => onOver([])}
          onClick={() => select([b.function])}
        >
          <title>{b.name}</title>
        </path>
      ))}
      {rows.map((row) => {
        const end = ends.get(row.line);
        if (!end) return null;
        return (
          <g
            key={row.line}
            role="button"
            tabIndex={0}
            aria-label={`${row.function}, ${row.terminal}`}
            aria-pressed={picked === row.line}
            aria-description={row.pin ? `${row.board} pin ${row.pin}` : "without a pin"}
            className="cursor-pointer"
            onMouseEnter={() => onOver([row.line])}
            onMouseLeave={() => onOver([])}
            onFocus={() => onOver([row.line])}
            onBlur={() => onOver([])}
            onClick={() => onPick(row.line)}
            onKeyDown={press(() => onPick(row.line))}
          >
            <circle cx={end.x} cy={end.y} r={1.27} fill="transparent" />
            <circle
              cx={end.x}
              cy={end.y}
              r={lit.has(row.line) ? 1.1 : 0.8}
              fill={row.pin ? "var(--body-ink)" : "var(--sheet)"}
              stroke={row.pin ? "var(--sheet)" : "var(--on-judge)"}
              strokeWidth={row.pin ? 0.15 : 0.4}
            />
          </g>
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
