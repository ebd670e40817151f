/** An outline from its corners, typed one a line: x, y and, after a corner, the bulge of an arc. */
import { useState } from "react";
import type { BriefChanges } from "../../api/commands";
import { useDesign } from "../../app/design";
import { pathOf } from "../../panel/shapes";
import { Button } from "../../ui/Button";
import { Sheet } from "../../ui/Sheet";

interface Props {
  set: (changes: BriefChanges) => void;
  onClose: () => void;
}

interface Corner {
  x: number;
  y: number;
  bulge: number;
}

function read(text: string): { points: Corner[]; wrong: string | null } {
  const points: Corner[] = [];
  for (const [n, line] of text.split("\n").entries()) {
    if (!line.trim()) continue;
    const cells = line
      .trim()
      .split(/[\s;]+/)
      .map((c) => Number(c.replace(",", ".")));
    const [x, y, bulge = 0] = cells;
    if (x === undefined || y === undefined || cells.length > 3 || cells.some((c) => !Number.isFinite(c)))
      return { points, wrong: `Line ${n + 1}: two or three numbers, such as 740 205 0.07` };
    points.push({ x, y, bulge });
  }
  return { points, wrong: points.length < 3 ? "At least three corners" : null };
}

export function Trace({ set, onClose }: Props) {
  const { design } = useDesign();
  const { opening } = design.brief;
  const [text, setText] = useState(
    opening.kind === "path"
      ? opening.points.map((p) => `${p.x} ${p.y}${p.bulge ? ` ${p.bulge}` : ""}`).join("\n")
      : "",
  );
  const { points, wrong } = read(text);
  const xs = points.map((p) => p.x);
  const ys = points.map((p) => p.y);
  const wide = Math.max(...xs) - Math.min(...xs);
  const high = Math.max(...ys) - Math.min(...ys);
  return (
    <Sheet title="Corners of the opening" open onClose={onClose}>
      <p className="text-faint">
        One corner a line, counter-clockwise from the lower left: x and y in mm. A third number makes an arc
        to the next corner: its rise over half its chord.
      </p>
      <div className="mt-3 grid grid-cols-2 gap-3">
        <textarea
          aria-label="Corners, one a line"
          className="num h-44 rounded border border-rule bg-sheet p-2"
          value={text}
          autoFocus
          onChange={(event) => setText(event.target.value)}
        />
        {points.length > 2 && wide > 0 && high > 0 && (
          <svg
            className="h-44 w-full"
            viewBox={`${Math.min(...xs) - wide * 0.1} ${-Math.max(...ys) - high * 0.15} ${wide * 1.2} ${high * 1.3}`}
            aria-hidden="true"
          >
            <path
              d={pathOf(points)}
              transform="scale(1 -1)"
              fill="var(--wash)"
              stroke="var(--ink)"
              strokeWidth={wide / 120}
            />
          </svg>
        )}
      </div>
      {text.trim() && wrong && (
        <p role="alert" className="mt-1 text-[12px] text-must">
          {wrong}
        </p>
      )}
      <div className="mt-3">
        <Button
          look="solid"
          disabled={wrong !== null}
          onClick={() => {
            set({ opening: { kind: "path", points } });
            onClose();
          }}
        >
          Use this outline
        </Button>
      </div>
    </Sheet>
  );
}
