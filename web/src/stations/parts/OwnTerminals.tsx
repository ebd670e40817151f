/** Where the terminals of an own part lie, seen from behind: dragged, or nudged by keys, to where they were measured. */
import type { PartSheet } from "../../api/types";
import { useDesign } from "../../app/design";
import { useDragMm } from "../../canvas/useDragMm";
import { shown } from "../../ui/figures";
import type { Edit } from "./edit";

type Terminal = PartSheet["terminals"][number];

interface Props {
  sheet: PartSheet;
  edit: (changes: Edit) => Promise<unknown>;
}

export function OwnTerminals({ sheet, edit }: Props) {
  const { design } = useDesign();
  if (sheet.terminals.length === 0) return null;
  // What was just moved is in the design before its sheet is worked out anew.
  const tags = design.parts.find((part) => part.id === sheet.part.id)?.tags ?? sheet.part.tags;
  const terminals = sheet.terminals.map((terminal) => ({
    ...terminal,
    ...tags.find((tag) => tag.terminal === terminal.terminal),
  }));
  const [width = 10, height = 10] = sheet.span;
  const reach = terminals.flatMap((t) => [Math.abs(2 * t.x), Math.abs(2 * t.y)]);
  const size = Math.max(width, height, ...reach) * 1.35;
  const moved = (terminal: Terminal, x: number, y: number) => {
    const others = tags.filter((tag) => tag.terminal !== terminal.terminal);
    return edit({ tags: [...others, { terminal: terminal.terminal, x, y }] });
  };
  return (
    <section aria-label="Its terminals from behind" className="mt-3 text-[12px]">
      <h3>Its terminals, seen from behind</h3>
      <p className="mt-0.5 text-faint">
        Drag each to where it lies on yours; the wiring sheet names it by that. Until then they lie as is
        usual.
      </p>
      <div className="mt-1 flex flex-wrap items-start gap-4">
        <svg
          role="group"
          aria-label="Terminals from behind"
          viewBox={`${-size / 2} ${-size / 2} ${size} ${size}`}
          className="size-52 shrink-0 rounded border border-rule bg-desk"
        >
          {/* From behind: what is at the right from the front lies at the left. */}
          <g transform="scale(-1 -1)">
            <rect
              x={-width / 2}
              y={-height / 2}
              width={width}
              height={height}
              rx={0.04 * size}
              fill="var(--card)"
              stroke="var(--note)"
              strokeWidth={size / 200}
            />
            {terminals.map((terminal) => (
              <OneTerminal key={terminal.terminal} terminal={terminal} size={size} onMoved={moved} />
            ))}
          </g>
        </svg>
        <ul className="min-w-60 flex-1">
          {terminals.map((terminal) => (
            <li key={terminal.terminal} className="flex gap-2 border-b border-rule py-0.5">
              <b className="num w-14 shrink-0 truncate">{terminal.terminal}</b>
              <span className="min-w-0 truncate">{terminal.lies || "the only one"}</span>
              <span className="flex-1" />
              <span className="text-faint">{terminal.measured ? "measured" : "usual"}</span>
            </li>
          ))}
          {tags.length > 0 && (
            <li className="pt-1">
              <button type="button" className="text-petrol underline" onClick={() => void edit({ tags: [] })}>
                all as is usual
              </button>
            </li>
          )}
        </ul>
      </div>
    </section>
  );
}

interface OneProps {
  terminal: Terminal;
  size: number;
  onMoved: (terminal: Terminal, x: number, y: number) => Promise<unknown>;
}

function OneTerminal({ terminal, size, onMoved }: OneProps) {
  // On the screen to the right is to the left from the front.
  const { shift, grip } = useDragMm(
    ({ dx, dy }) => onMoved(terminal, rounded(terminal.x + dx), rounded(terminal.y + dy)),
    true,
  );
  const [x, y] = [terminal.x + (shift?.dx ?? 0), terminal.y + (shift?.dy ?? 0)];
  return (
    <g>
      <circle
        role="button"
        tabIndex={0}
        aria-label={`Terminal ${terminal.terminal}, ${terminal.lies || "the only one"}, ${shown(-x)} to the right, ${shown(y)} up`}
        cx={x}
        cy={y}
        r={size / 36}
        className="cursor-move outline-none focus-visible:[stroke:var(--ink)]"
        fill={terminal.measured ? "var(--petrol)" : "var(--note)"}
        stroke="var(--sheet)"
        strokeWidth={size / 150}
        {...grip}
      />
      <text
        transform={`translate(${x} ${y + size / 22}) scale(-1 -1)`}
        textAnchor="middle"
        fontSize={size / 20}
        fill="var(--ink)"
        className="pointer-events-none"
      >
        {terminal.terminal}
      </text>
    </g>
  );
}

const rounded = (value: number) => Math.round(value * 10) / 10;
