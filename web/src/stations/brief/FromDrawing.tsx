/** The opening taken from a drawing: a DXF or SVG file is read, and one of its outlines chosen. */
import { useState } from "react";
import { answered, api, Refused } from "../../api/client";
import type { ImportView } from "../../api/types";
import { useDesign } from "../../app/design";
import { Button } from "../../ui/Button";
import { FileButton } from "../../ui/FileButton";
import { shown } from "../../ui/figures";

const UNITS = ["as drawn", "mm", "cm", "in"] as const;

interface FromDrawingProps {
  take: (outline: ImportView["outlines"][number]["outline"]) => void;
  onTrace: () => void;
}

export function FromDrawing({ take, onTrace }: FromDrawingProps) {
  const view = useDesign();
  const [unit, setUnit] = useState<(typeof UNITS)[number]>("as drawn");
  const [found, setFound] = useState<ImportView | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const read = async (chosen: File) => {
    setFound(null);
    setWrong(null);
    try {
      const content = await chosen.text();
      const result = await answered(
        api.POST("/api/designs/{design_id}/brief/read-outline", {
          params: { path: { design_id: view.id }, query: { unit } },
          body: content as never,
          bodySerializer: (body: unknown) => body as string,
        }),
      );
      setFound(result);
    } catch (error) {
      setWrong(
        error instanceof Refused ? `${chosen.name}: ${error.problem.detail}` : "It cannot be read now",
      );
    }
  };
  return (
    <div className="mt-2">
      <div className="flex flex-wrap items-center gap-2">
        <FileButton label="Drawing of the opening" accept=".dxf,.svg" onFile={(chosen) => void read(chosen)}>
          From a DXF or SVG file…
        </FileButton>
        <label className="flex items-center gap-1.5 text-[12px] text-faint">
          unit
          <select
            className="h-7 rounded border border-faint bg-sheet px-1 text-ink"
            value={unit}
            onChange={(event) => setUnit(event.target.value as typeof unit)}
          >
            {UNITS.map((u) => (
              <option key={u}>{u}</option>
            ))}
          </select>
        </label>
        <Button look="quiet" onClick={onTrace}>
          Type its corners
        </Button>
      </div>
      {wrong && (
        <p role="alert" className="mt-1.5 text-[12px] text-must">
          {wrong}
        </p>
      )}
      {found && (
        <Found
          found={found}
          onTake={(outline) => {
            setFound(null);
            take(outline);
          }}
        />
      )}
    </div>
  );
}

interface FoundProps {
  found: ImportView;
  onTake: (outline: ImportView["outlines"][number]["outline"]) => void;
}

function Found({ found, onTake }: FoundProps) {
  return (
    <div
      className="mt-2 rounded border border-rule bg-sheet p-2.5"
      role="group"
      aria-label="Found in the drawing"
    >
      <p className="text-[12px] text-faint">
        Read in {found.unit}. {found.notes.join(". ")}
      </p>
      <ul className="mt-1.5 flex flex-wrap gap-2">
        {found.outlines.slice(0, 8).map((o, n) => (
          <li key={n}>
            <Button onClick={() => onTake(o.outline)}>
              <svg
                width="52"
                height="34"
                viewBox={`${-o.width * 0.04} ${-o.height * 1.04} ${o.width * 1.08} ${o.height * 1.08}`}
                aria-hidden="true"
              >
                <path
                  d={o.path}
                  transform="scale(1 -1)"
                  fill="none"
                  stroke="currentColor"
                  strokeWidth={o.width / 40}
                />
              </svg>
              <span className="num block">
                Take {shown(o.width)} × {shown(o.height)}
              </span>
            </Button>
          </li>
        ))}
      </ul>
    </div>
  );
}
