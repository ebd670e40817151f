/** A chip from above, its notch at the top, each pin with what it is joined to. */
import type { NetworksView } from "../../api/types";
import { useSession } from "../../app/session";

type Chip = NetworksView["networks"][number]["chips"][number];

const PITCH = 15;
const BODY = 116;
const SIDE = 146;
const LONGEST = 24;

export function ChipDrawing({ chip }: { chip: Chip }) {
  const half = chip.pins.length / 2;
  const height = half * PITCH + 12;
  const title = [chip.mark, chip.name, chip.address].filter(Boolean).join(" ");
  return (
    <figure className="max-w-full">
      <figcaption className="num text-center text-[11px] font-semibold">{title}</figcaption>
      <svg
        role="img"
        aria-label={`${title}: ${chip.pins.map((pin) => `${pin.number} ${pin.name} ${pin.to || "free"}`).join(", ")}`}
        viewBox={`0 0 ${BODY + 2 * SIDE} ${height}`}
        width={BODY + 2 * SIDE}
        className="h-auto max-w-full"
      >
        <rect x={SIDE} y={1} width={BODY} height={height - 2} rx={3} fill="var(--board)" />
        <path d={`M${SIDE + BODY / 2 - 6} 1a6 6 0 0 0 12 0Z`} fill="var(--sheet)" />
        {chip.pins.map((pin, n) => (
          <PinWords
            key={pin.number}
            pin={pin}
            left={n < half}
            y={8 + PITCH / 2 + PITCH * (n < half ? n : chip.pins.length - 1 - n)}
          />
        ))}
      </svg>
    </figure>
  );
}

function PinWords({ pin, left, y }: { pin: Chip["pins"][number]; left: boolean; y: number }) {
  const chosen = useSession((s) => pin.function !== "" && s.selection.includes(pin.function));
  const edge = left ? SIDE : SIDE + BODY;
  const out = left ? -1 : 1;
  const words = pin.to.length > LONGEST ? `${pin.to.slice(0, LONGEST - 1)}…` : pin.to;
  const text = { fontSize: 10, dominantBaseline: "central" } as const;
  return (
    <g>
      <rect
        x={left ? edge - 7 : edge}
        y={y - 3}
        width={7}
        height={6}
        fill={pin.to ? "var(--board-pin)" : "var(--faint)"}
        stroke="var(--body-edge)"
        strokeWidth={0.6}
      />
      <text {...text} x={edge - out * 4} y={y} textAnchor={left ? "start" : "end"} fill="var(--board-ink)">
        <tspan fontFamily="var(--font-mono)" fontSize={9}>
          {left ? `${pin.number} ${pin.name}` : `${pin.name} ${pin.number}`}
        </tspan>
      </text>
      <text
        {...text}
        x={edge + out * 11}
        y={y}
        textAnchor={left ? "end" : "start"}
        fill={pin.function ? "var(--ink)" : "var(--faint)"}
        fontWeight={chosen ? 700 : 400}
      >
        {words}
        <title>{pin.to}</title>
      </text>
    </g>
  );
}
