/** Every part from the front and the side, all at one scale, standing on a shelf so that sizes compare by eye. */
import type { PartSheet } from "../../api/types";
import { PartFront, reach } from "../../panel/shapes";
import { SOLIDS } from "./solids";

const SCALE = 1.05;

interface Props {
  sheets: PartSheet[];
  picked: string;
  onPick: (id: string) => void;
}

export function Shelves({ sheets, picked, onPick }: Props) {
  const stop = sheets.some((s) => s.part.id === picked) ? picked : sheets[0]?.part.id;
  if (sheets.length === 0) return <p className="text-faint">No part matches.</p>;
  return (
    <ul className="flex flex-wrap items-end gap-x-1 gap-y-4" onKeyDown={(event) => step(event, onPick)}>
      {sheets.map((sheet) => (
        <li key={sheet.part.id}>
          <button
            type="button"
            aria-pressed={sheet.part.id === picked}
            data-part={sheet.part.id}
            tabIndex={sheet.part.id === stop ? 0 : -1}
            className={`flex flex-col items-center rounded border px-2 pt-2 pb-1 ${sheet.part.id === picked ? "border-petrol bg-warm" : "border-transparent hover:border-rule"}`}
            style={{ minWidth: 80 }}
            onClick={() => onPick(sheet.part.id)}
          >
            <span className="flex items-end gap-1.5">
              <Front sheet={sheet} />
              <Profile sheet={sheet} />
            </span>
            <Badge part={sheet.part} />
            <span className="mt-0.5 h-[3px] w-full bg-faint/40" />
            <span className="mt-1 max-w-28 text-center text-[11px]/[14px]">{sheet.part.name}</span>
            <span className="num text-[11px] text-faint">{figures(sheet)}</span>
          </button>
        </li>
      ))}
    </ul>
  );
}

const STEPS: Record<string, number> = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 };

/** The whole shelf is one tab stop; arrows go from part to part. */
function step(event: React.KeyboardEvent<HTMLElement>, onPick: Props["onPick"]): void {
  const by = STEPS[event.key];
  if (!by) return;
  const all = [...event.currentTarget.querySelectorAll<HTMLElement>("[data-part]")];
  const next = all[all.findIndex((part) => part === document.activeElement) + by];
  if (!next) return;
  event.preventDefault();
  event.stopPropagation();
  next.focus();
  onPick(next.dataset["part"] ?? "");
}

const figures = ({ used_by, on_hand }: PartSheet): string =>
  [used_by.length && `${used_by.length} used`, on_hand && `${on_hand} on hand`].filter(Boolean).join(", ") ||
  "–";

/** What tells parts apart that look alike: positions, ways, digits, springs, the colour of the lamp. */
function Badge({ part }: { part: PartSheet["part"] }) {
  const springs = part.positions.some((p) => p.springs);
  const says = [
    part.detents
      ? `${part.detents.ways} ways`
      : part.positions.length > 1
        ? `${part.positions.length} pos.`
        : "",
    part.digits ? `${part.digits.count} digits` : "",
    springs ? "springs" : "",
  ].filter(Boolean);
  const lamp = part.front.find((piece) => piece.lamp);
  if (says.length === 0 && !lamp) return null;
  return (
    <span className="mt-1 flex items-center gap-1 text-[11px]/[12px] text-faint">
      {lamp && (
        <svg width="9" height="9" aria-hidden="true">
          <circle cx="4.5" cy="4.5" r="4" fill={lamp.fill} stroke="var(--faint)" />
        </svg>
      )}
      {[lamp ? part.colour : "", ...says].filter(Boolean).join(", ")}
    </span>
  );
}

function Front({ sheet: { part } }: { sheet: PartSheet }) {
  const { width, height } = reach(part.cover);
  return (
    <svg
      width={width * SCALE + 4}
      height={height * SCALE + 4}
      viewBox={`${-width / 2 - 1.5} ${-height / 2 - 1.5} ${width + 3} ${height + 3}`}
      aria-hidden="true"
    >
      <g transform="scale(1 -1)">
        <PartFront front={part.front} />
      </g>
    </svg>
  );
}

/** The same part from the side, without layers. */
function Profile({ sheet: { side } }: { sheet: PartSheet }) {
  const boxes = side.filter((b) => b.kind in SOLIDS);
  const z0 = Math.min(...boxes.map((b) => b.z0));
  const z1 = Math.max(...boxes.map((b) => b.z1));
  const [low, high] = [Math.min(...boxes.map((b) => b.y0)), Math.max(...boxes.map((b) => b.y1))];
  return (
    <svg
      width={(z1 - z0) * SCALE + 2}
      height={(high - low) * SCALE + 2}
      viewBox={`${z0 - 0.7} ${-high - 0.7} ${z1 - z0 + 1.4} ${high - low + 1.4}`}
      aria-hidden="true"
      className="opacity-60"
    >
      {boxes.map((b, n) => (
        <rect
          key={n}
          x={b.z0}
          y={-b.y1}
          width={b.z1 - b.z0}
          height={b.y1 - b.y0}
          fill={SOLIDS[b.kind]}
          stroke="var(--body-edge)"
          strokeWidth={0.5}
        />
      ))}
    </svg>
  );
}
