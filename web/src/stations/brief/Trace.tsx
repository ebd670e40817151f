/** An outline from its corners, typed one a line: x, y and, after a corner, the bulge of an arc. */
import { useEffect, useState } from "react";
import { answered, api } from "../../api/client";
import type { BriefChanges } from "../../api/commands";
import type { OutlineView } from "../../api/types";
import { useDesign } from "../../app/design";
import { Button } from "../../ui/Button";
import { Sheet } from "../../ui/Sheet";

interface Props {
  set: (changes: BriefChanges) => void;
  onClose: () => void;
}

/** The outline of the corners as the core reads them, a moment after the last key. */
function useCorners(design: string, text: string): { outline: OutlineView | null; wrong: string | null } {
  const [found, setFound] = useState<{ outline: OutlineView | null; wrong: string | null }>({
    outline: null,
    wrong: null,
  });
  useEffect(() => {
    let over = false;
    const timer = setTimeout(() => {
      answered(
        api.POST("/api/designs/{design_id}/brief/read-corners", {
          params: { path: { design_id: design } },
          body: { text },
        }),
      )
        .then((outline) => over || setFound({ outline, wrong: null }))
        .catch((error: unknown) => {
          const wrong = error instanceof Error ? error.message : "That cannot be read";
          if (!over) setFound({ outline: null, wrong });
        });
    }, 150);
    return () => {
      over = true;
      clearTimeout(timer);
    };
  }, [design, text]);
  return found;
}

export function Trace({ set, onClose }: Props) {
  const { id, design } = useDesign();
  const { opening } = design.brief;
  const [text, setText] = useState(
    opening.kind === "path"
      ? opening.points.map((p) => `${p.x} ${p.y}${p.bulge ? ` ${p.bulge}` : ""}`).join("\n")
      : "",
  );
  const { outline, wrong } = useCorners(id, text);
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
        {outline && (
          <svg
            className="h-44 w-full"
            viewBox={`${-outline.width * 0.1} ${-outline.height * 1.15} ${outline.width * 1.2} ${outline.height * 1.3}`}
            aria-hidden="true"
          >
            <path
              d={outline.path}
              transform="scale(1 -1)"
              fill="var(--wash)"
              stroke="var(--ink)"
              strokeWidth={outline.width / 120}
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
          disabled={outline === null}
          onClick={() => {
            if (outline) set({ opening: outline.outline });
            onClose();
          }}
        >
          Use this outline
        </Button>
      </div>
    </Sheet>
  );
}
