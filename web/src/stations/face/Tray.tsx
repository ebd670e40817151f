/** The tray: functions that wait for a place, each with its part drawn small. */
import { Link } from "wouter";
import type { Fn, Part } from "../../api/types";
import { useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { carryPart } from "./carrying";
import { frontOf } from "../../panel/PartOnPanel";
import { PartFront, reach } from "../../panel/shapes";
import { Button } from "../../ui/Button";

interface Props {
  waiting: readonly Fn[];
  total: number;
  onPlaceNext: () => void;
}

export function Tray({ waiting, total, onPlaceNext }: Props) {
  const { id, design } = useDesign();
  const parts = new Map(design.parts.map((p) => [p.id, p]));
  return (
    <section aria-label="Tray" className="flex min-h-0 flex-1 flex-col">
      <h2 className="flex justify-between px-3.5 pt-2.5 pb-2 text-[12px]">
        In the tray <span className="num font-normal text-faint">{`${waiting.length} of ${total}`}</span>
      </h2>
      <ul className="min-h-0 flex-1 overflow-y-auto">
        {waiting.map((fn) => (
          <TrayRow key={fn.id} fn={fn} part={fn.part ? parts.get(fn.part) : undefined} />
        ))}
      </ul>
      <div className="border-t border-rule p-3.5 text-[12px] text-faint">
        {waiting.some((f) => f.part) && (
          <>
            <p className="mb-2">Drag onto the plate, or place the next one near its group.</p>
            <Button keys="P" onClick={onPlaceNext}>
              Place the next
            </Button>
          </>
        )}
        {total === 0 && (
          <p>
            Nothing to place yet.{" "}
            <Link href={`/d/${id}/brief`} className="text-petrol underline">
              List what the panel must do
            </Link>
          </p>
        )}
        {total > 0 && waiting.length === 0 && <p>Everything is on a plate.</p>}
        {waiting.length > 0 && !waiting.some((f) => f.part) && (
          <p>
            These need a part first.{" "}
            <Link href={`/d/${id}/parts`} className="text-petrol underline">
              Choose parts
            </Link>
          </p>
        )}
      </div>
    </section>
  );
}

function TrayRow({ fn, part }: { fn: Fn; part: Part | undefined }) {
  const selected = useSession((s) => s.selection.includes(fn.id));
  const lens = useDesign().lenses[fn.id];
  const select = useSession((s) => s.select);
  return (
    <li>
      <button
        type="button"
        data-tray={fn.id}
        aria-pressed={selected}
        className={`flex w-full touch-pan-y items-center gap-2.5 px-3.5 py-1 text-left outline-offset-[-2px] hover:bg-wash ${selected ? "bg-wash" : ""}`}
        onClick={() => select([fn.id])}
        onPointerDown={(event) => {
          if (!part || event.button !== 0) return;
          carryPart(event.nativeEvent, fn);
        }}
      >
        <Small part={part} lens={lens} />
        <span className="min-w-0">
          <span className="block truncate">{fn.name}</span>
          <span className="block truncate text-[11px]/[14px] text-faint">{part?.name ?? "no part yet"}</span>
        </span>
      </button>
    </li>
  );
}

function Small({ part, lens }: { part: Part | undefined; lens: string | undefined }) {
  if (!part) {
    return (
      <svg width="34" height="34" viewBox="-17 -17 34 34" aria-hidden="true" className="shrink-0">
        <circle r="11" fill="none" stroke="var(--faint)" strokeDasharray="2 2" />
      </svg>
    );
  }
  const { width, height } = reach(part.cover);
  const scale = 32 / Math.max(width, height, 16);
  return (
    <svg width="34" height="34" viewBox="-17 -17 34 34" aria-hidden="true" className="shrink-0">
      <g transform={`scale(${scale} ${-scale})`}>
        <PartFront front={frontOf(part, undefined, lens)} />
      </g>
    </svg>
  );
}
