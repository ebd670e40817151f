/** The hole pattern that was there before: what the new plate takes up, hides, or leaves in sight. */
import { useState } from "react";
import { answered, api } from "../../api/client";
import type { SurfaceView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { Button } from "../../ui/Button";
import { many, shown } from "../../ui/figures";

type Face = SurfaceView["faces"][number];
/** Lines that were not understood are told of one by one, but not all of a long list. */
const MOST = 8;
type Fault = { line: number; words: string };

export function OldHoles({ faces }: { faces: Face[] }) {
  return (
    <section aria-label="Old holes" className="border-t border-rule px-3.5 py-2.5">
      <h3 className="font-semibold">Old holes</h3>
      <p className="mt-0.5 text-[11px]/[15px] text-faint">
        Does a plate replace another, or lie upon one? Type where its holes were, from its lower left corner.
      </p>
      {faces.map((face) => (
        <OfFace key={face.id} face={face} />
      ))}
    </section>
  );
}

function OfFace({ face }: { face: Face }) {
  const { id } = useDesign();
  const { send } = useChanges(id);
  const [text, setText] = useState<string | null>(null);
  const [faults, setFaults] = useState<Fault[]>([]);
  const keep = async () => {
    const read = await answered(
      api.POST("/api/designs/{design_id}/surface/old-holes", {
        params: { path: { design_id: id } },
        body: { text: text ?? "" },
      }),
    ).catch((error: unknown) => ({
      holes: [],
      faults: [{ line: 1, words: error instanceof Error ? error.message : "That cannot be read" }],
    }));
    setFaults(read.faults.slice(0, MOST));
    if (
      read.faults.length === 0 &&
      (await send([{ do: "set_old_holes", module: face.id, holes: read.holes }]))
    )
      setText(null);
  };
  const typed = face.old.map((h) => `${h.x}, ${h.y}, ${h.diameter}${h.name && `, ${h.name}`}`).join("\n");
  return (
    <div className="mt-1.5">
      <div className="flex items-center justify-between gap-2 text-[12px]">
        <span>
          {face.name}: {face.old.length === 0 ? "none said" : many(face.old.length, "hole")}
        </span>
        {text === null && (
          <Button look="quiet" onClick={() => setText(typed)}>
            {face.old.length === 0 ? "Type them…" : "Change…"}
          </Button>
        )}
      </div>
      <ul className="text-[11px]">
        {face.old.map((hole, n) => (
          <li key={n} className={hole.standing === "open" ? "text-judge" : "text-faint"}>
            <span className="num">
              ⌀ {shown(hole.diameter)} at {shown(hole.x)}, {shown(hole.y)}
            </span>{" "}
            {hole.name} {said(hole)}
          </li>
        ))}
      </ul>
      {text !== null && (
        <div className="mt-1">
          <label className="block text-[11px] text-faint">
            x, y, diameter, name: one a line
            <textarea
              className="num mt-0.5 h-24 w-full resize-y rounded border border-faint bg-sheet p-1.5 text-[12px] text-ink"
              value={text}
              autoFocus
              spellCheck={false}
              placeholder={"30, 90, 12, old key"}
              onChange={(event) => setText(event.target.value)}
            />
          </label>
          {faults.map((fault) => (
            <p key={fault.line} role="alert" className="text-[11px] text-must">
              Line {fault.line}: {fault.words}
            </p>
          ))}
          <div className="mt-1 flex gap-1.5">
            <Button look="solid" onClick={() => void keep()}>
              Keep these holes
            </Button>
            <Button
              look="quiet"
              onClick={() => {
                setText(null);
                setFaults([]);
              }}
            >
              Cancel
            </Button>
          </div>
        </div>
      )}
    </div>
  );
}

function said(hole: Face["old"][number]): string {
  if (hole.standing === "reused") return `taken up by ${hole.by}`;
  if (hole.standing === "covered") return `hidden by ${hole.by}`;
  return `in sight beside ${hole.by}`;
}
