/** A piece too large for the beds: its seams as a little drawing and as numbers, what joins its parts. */
import type { SheetsView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { Button } from "../../ui/Button";
import { ChoiceField, LengthField } from "../../ui/fields";
import { many, shown } from "../../ui/figures";

type Whole = SheetsView["wholes"][number];
type Split = NonNullable<Whole["split"]>;

const JOINTS = [
  ["straight", "glued to the sheet beside it"],
  ["strap", "a strap glued behind"],
  ["tongues", "tongues, cut with it"],
  ["dowels", "dowels in the edge"],
] as const;

export function Parting({ whole }: { whole: Whole }) {
  const { id } = useDesign();
  const { send } = useChanges(id);
  const { split } = whole;
  const part = (next: Split) => void send([{ do: "set_split", piece: whole.id, ...next }]);
  const offer = whole.offers.find((o) => o.joint === "straight") ?? whole.offers[0];
  const rejoined = (joint: Split["joint"]) => {
    const better = joint === "tongues" ? whole.offers.find((o) => o.joint === joint) : undefined;
    if (split) part(better ?? { ...split, joint });
  };
  return (
    <li className="border-t border-rule bg-card px-3.5 py-2.5">
      <p className="flex justify-between gap-2">
        <span className="min-w-0 font-semibold">{whole.name}</span>
        <span className="num shrink-0 text-[11px] text-faint">
          {shown(whole.width)} × {shown(whole.height)}
        </span>
      </p>
      <Drawing whole={whole} split={split ?? offer ?? null} />
      {!split && !offer && (
        <p className="text-[12px] text-judge">
          Too large for every bed, and no straight seams one way part it so that a bed takes the parts and
          nothing is in their way. Split the module at Brief, or move what is in the way.
        </p>
      )}
      {!split && offer && (
        <Button onClick={() => part(offer)}>
          Part it in {offer.at.length + 1}, at {offer.at.map((at) => shown(at)).join(" and ")}
        </Button>
      )}
      {split && (
        <div className="space-y-1.5">
          {whole.crossed.length > 0 && (
            <p role="alert" className="text-[12px] text-must">
              Left whole: a seam runs through {whole.crossed[0]}
              {whole.crossed.length > 1 && ` and ${many(whole.crossed.length - 1, "other")}`}.
            </p>
          )}
          <div className="grid grid-cols-2 gap-1.5">
            {split.at.map((at, n) => (
              <LengthField
                key={n}
                label={`Seam ${n + 1}, from the ${split.along === "x" ? "left" : "foot"}`}
                value={at}
                least={1}
                onCommit={(mm) => part({ ...split, at: split.at.map((old, k) => (k === n ? mm : old)) })}
              />
            ))}
          </div>
          <ChoiceField
            label="Its parts are joined by"
            value={split.joint}
            options={JOINTS}
            onCommit={rejoined}
          />
          {whole.dowels.length > 0 && (
            <p className="text-[11px] text-faint">
              Dowels at <span className="num">{whole.dowels.map((at) => shown(at)).join(", ")}</span> along
              the seam, {whole.marked ? "marked at both edges" : "not marked on a face: measure them"}
            </p>
          )}
          <Button look="quiet" onClick={() => part({ ...split, at: [] })}>
            Leave it whole
          </Button>
        </div>
      )}
    </li>
  );
}

/** The piece with its seams, dashed while they are only proposed. */
function Drawing({ whole, split }: { whole: Whole; split: Split | null }) {
  const room = Math.max(whole.width, whole.height) / 40;
  const proposed = whole.split === null;
  return (
    <svg
      className="my-1.5 max-h-24 w-full"
      viewBox={`${-room} ${-room} ${whole.width + 2 * room} ${whole.height + 2 * room}`}
      role="img"
      aria-label={split ? `${whole.name} with ${many(split.at.length, "seam")}` : whole.name}
    >
      <path
        d={whole.drawn}
        transform={`matrix(1 0 0 -1 0 ${whole.height})`}
        fill="var(--sheet)"
        fillRule="evenodd"
        stroke="var(--ink)"
        strokeWidth={1}
        vectorEffect="non-scaling-stroke"
      />
      {split?.at.map((at) => (
        <line
          key={at}
          x1={split.along === "x" ? at : 0}
          x2={split.along === "x" ? at : whole.width}
          y1={split.along === "x" ? 0 : whole.height - at}
          y2={split.along === "x" ? whole.height : whole.height - at}
          stroke={whole.crossed.length > 0 ? "var(--must)" : "var(--petrol)"}
          strokeWidth={2}
          strokeDasharray={proposed ? "4 3" : undefined}
          vectorEffect="non-scaling-stroke"
        />
      ))}
    </svg>
  );
}
