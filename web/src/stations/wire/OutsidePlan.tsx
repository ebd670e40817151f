/** The opening from the front with its modules, and what stands outside them: dragged to where it stands. */
import type { HarnessView } from "../../api/types";
import { useDesign } from "../../app/design";
import { useDragMm } from "../../canvas/useDragMm";

type Thing = HarnessView["outside"][number];

interface Props {
  harness: HarnessView;
  onStand: (thing: Thing, at: { x: number; y: number }) => Promise<unknown>;
}

const WIDE = 60;
const HIGH = 26;

export function OutsidePlan({ harness, onStand }: Props) {
  const { modules } = useDesign();
  const there = harness.outside.filter((thing) => thing.said && !thing.mounted);
  if (there.length === 0) return null;
  const boxes = modules.map((m) => ({ ...m, x2: m.x + m.width, y2: m.y + m.height }));
  const xs = [...boxes.flatMap((b) => [b.x, b.x2]), ...there.flatMap((t) => [t.x - WIDE, t.x + WIDE])];
  const ys = [...boxes.flatMap((b) => [b.y, b.y2]), ...there.flatMap((t) => [t.y - HIGH, t.y + HIGH])];
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const edge = 0.03 * (x1 - x0);
  return (
    <svg
      role="group"
      aria-label="Where things stand, seen from the front"
      viewBox={`${x0 - edge} ${-y1 - edge} ${x1 - x0 + 2 * edge} ${y1 - y0 + 2 * edge}`}
      className="mt-2 max-h-72 w-full max-w-3xl rounded border border-rule bg-desk"
    >
      <g transform="scale(1 -1)">
        {boxes.map((b) => (
          <g key={b.id}>
            <rect x={b.x} y={b.y} width={b.width} height={b.height} fill="var(--card)" stroke="var(--note)" />
            <text
              transform={`translate(${b.x + b.width / 2} ${b.y + b.height / 2}) scale(1 -1)`}
              textAnchor="middle"
              fontSize={edge}
              fill="var(--faint)"
            >
              {b.name}
            </text>
          </g>
        ))}
        {there.map((thing) => (
          <OneThing key={thing.device} thing={thing} onStand={onStand} />
        ))}
      </g>
    </svg>
  );
}

function OneThing({ thing, onStand }: { thing: Thing; onStand: Props["onStand"] }) {
  const { shift, grip } = useDragMm(({ dx, dy }) => onStand(thing, { x: thing.x + dx, y: thing.y + dy }));
  const [x, y] = [thing.x + (shift?.dx ?? 0), thing.y + (shift?.dy ?? 0)];
  return (
    <g>
      <g
        role="button"
        tabIndex={0}
        aria-label={`${thing.name} at ${Math.round(x)}, ${Math.round(y)} mm; arrows move it`}
        className="cursor-move"
        {...grip}
      >
        <rect
          x={x - WIDE / 2}
          y={y - HIGH / 2}
          width={WIDE}
          height={HIGH}
          rx={3}
          fill="var(--board)"
          stroke="var(--board-pin)"
        />
      </g>
      <text
        transform={`translate(${x} ${y - 2}) scale(1 -1)`}
        textAnchor="middle"
        fontSize={9}
        fill="var(--board-ink)"
        pointerEvents="none"
      >
        {thing.name.length > 12 ? `${thing.name.slice(0, 11)}…` : thing.name}
      </text>
    </g>
  );
}
