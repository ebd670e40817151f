/** Strips and LEDs where they lie behind: chosen, dragged by the middle or an end, moved by arrow keys. */
import type { LightView } from "../../api/types";
import { useDragMm } from "../../canvas/useDragMm";
import { useLightState } from "./store";
import type { Laying, Led, Strip } from "./useLaying";

interface Props {
  light: LightView;
  laying: Laying;
  scale: number;
  /** Over the night, where they only remind. */
  faint: boolean;
}

export function LampShapes({ light, laying, scale, faint }: Props) {
  return (
    <g opacity={faint ? 0.35 : 1}>
      {light.light.strips.map((strip, n) => (
        <StripShape
          key={strip.id}
          strip={strip}
          name={`Strip ${n + 1}`}
          dots={light.runs.find((r) => r.id === strip.id)?.dots ?? []}
          laying={laying}
          scale={scale}
          faint={faint}
        />
      ))}
      {light.light.leds.map((led, n) => (
        <LedShape key={led.id} led={led} name={`LED ${n + 1}`} laying={laying} scale={scale} />
      ))}
    </g>
  );
}

const tidy = (value: number) => Math.round(value * 100) / 100;

interface StripProps {
  strip: Strip;
  name: string;
  dots: readonly { x: number; y: number }[];
  laying: Laying;
  scale: number;
  faint: boolean;
}

function StripShape({ strip, name, dots, laying, scale, faint }: StripProps) {
  const { chosen, set } = useLightState();
  const middle = useDragMm(({ dx, dy }) =>
    laying.editStrip(strip.id, {
      x: tidy(strip.x + dx),
      y: tidy(strip.y + dy),
      x2: tidy(strip.x2 + dx),
      y2: tidy(strip.y2 + dy),
    }),
  );
  const first = useDragMm(({ dx, dy }) =>
    laying.editStrip(strip.id, { x: tidy(strip.x + dx), y: tidy(strip.y + dy) }),
  );
  const last = useDragMm(({ dx, dy }) =>
    laying.editStrip(strip.id, { x2: tidy(strip.x2 + dx), y2: tidy(strip.y2 + dy) }),
  );
  const way = middle.shift ?? { dx: 0, dy: 0 };
  const a = { x: strip.x + way.dx + (first.shift?.dx ?? 0), y: strip.y + way.dy + (first.shift?.dy ?? 0) };
  const b = { x: strip.x2 + way.dx + (last.shift?.dx ?? 0), y: strip.y2 + way.dy + (last.shift?.dy ?? 0) };
  const on = chosen === strip.id;
  const line = `M${a.x} ${a.y}L${b.x} ${b.y}`;
  return (
    <g>
      {!faint && <path d={line} stroke="var(--strip)" strokeWidth={10} pointerEvents="none" />}
      <path
        d={line}
        stroke={on ? "var(--night-mark)" : "var(--strip-edge)"}
        strokeWidth={1.4 / scale}
        strokeDasharray={faint ? `${6 / scale} ${4 / scale}` : undefined}
        pointerEvents="none"
      />
      {!faint &&
        dots.map((dot, n) => (
          <circle
            key={n}
            cx={dot.x + way.dx}
            cy={dot.y + way.dy}
            r={1.6}
            fill="var(--night-glow)"
            pointerEvents="none"
          />
        ))}
      <path
        data-grip=""
        role="button"
        tabIndex={0}
        aria-label={`${name}: drag, or move by arrow keys`}
        aria-pressed={on}
        d={line}
        stroke="transparent"
        strokeWidth={Math.max(10, 14 / scale)}
        className="cursor-move"
        onFocus={() => set({ chosen: strip.id, side: "behind" })}
        {...middle.grip}
      />
      {on &&
        (
          [
            ["start", a, first.grip],
            ["end", b, last.grip],
          ] as const
        ).map(([end, at, grip]) => (
          <circle
            key={end}
            data-grip=""
            role="button"
            tabIndex={0}
            aria-label={`${name}, ${end}: drag, or move by arrow keys`}
            cx={at.x}
            cy={at.y}
            r={6 / scale}
            fill="var(--night-plate)"
            stroke="var(--night-mark)"
            strokeWidth={2 / scale}
            className="cursor-move outline-offset-2"
            {...grip}
          />
        ))}
    </g>
  );
}

function LedShape({ led, name, laying, scale }: { led: Led; name: string; laying: Laying; scale: number }) {
  const { chosen, set } = useLightState();
  const drag = useDragMm(({ dx, dy }) =>
    laying.editLed(led.id, { x: tidy(led.x + dx), y: tidy(led.y + dy) }),
  );
  const on = chosen === led.id;
  return (
    <circle
      data-grip=""
      role="button"
      tabIndex={0}
      aria-label={`${name}: drag, or move by arrow keys`}
      aria-pressed={on}
      cx={led.x + (drag.shift?.dx ?? 0)}
      cy={led.y + (drag.shift?.dy ?? 0)}
      r={2.4}
      fill={on ? "var(--night-mark)" : "var(--night-plate)"}
      stroke={on ? "var(--night-ink)" : "var(--night-glow)"}
      strokeWidth={1.4 / scale}
      className="cursor-move outline-offset-2"
      onFocus={() => set({ chosen: led.id, side: "behind" })}
      {...drag.grip}
    />
  );
}
