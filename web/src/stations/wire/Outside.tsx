/** Where boards, supplies, loads and relays stand that are not behind a module, so that their wires have a length. */
import type { HarnessView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { Button } from "../../ui/Button";
import { LengthField } from "../../ui/fields";
import { useLength } from "../../ui/useLength";
import { OutsidePlan } from "./OutsidePlan";

type Thing = HarnessView["outside"][number];
const KINDS: Record<string, string> = { controller: "board", supply: "supply", load: "load", relay: "relay" };

export function Outside({ harness }: { harness: HarnessView }) {
  const { id, design } = useDesign();
  const { send } = useChanges(id);
  const width = Math.max(...design.modules.map((m) => m.x + widthOf(m)), 1);
  const stand = (thing: Thing, at: Partial<Pick<Thing, "x" | "y" | "behind">>) =>
    send([{ do: "stand", device: thing.device, x: thing.x, y: thing.y, behind: thing.behind || 100, ...at }]);
  return (
    <div className="min-h-0 flex-1 overflow-y-auto bg-sheet px-4 py-3 text-[12px]">
      <p className="max-w-[80ch]">
        Say where each stands: from the opening's lower left corner, to the right and up (below it is less
        than nothing), and how far behind the face. Wires then have a length; until then{" "}
        <span className="num">{design.harness.away} mm</span> is reckoned from the module's exit on.
      </p>
      <OutsidePlan harness={harness} onStand={stand} />
      {harness.outside.some((t) => t.said && !t.mounted) && (
        <p
          aria-hidden="true"
          className="mt-2 grid max-w-3xl grid-cols-[minmax(0,1fr)_4rem_repeat(3,6rem)_7rem] gap-2 text-right text-[11px] text-faint"
        >
          <span className="col-start-3">right, mm</span>
          <span>up, mm</span>
          <span>behind, mm</span>
        </p>
      )}
      <ul className="mt-2 max-w-3xl">
        {harness.outside.map((thing, n) => (
          <li
            key={thing.device}
            className="grid grid-cols-[minmax(0,1fr)_4rem_repeat(3,6rem)_7rem] items-center gap-2 border-t border-rule py-1"
          >
            <span className="truncate" title={thing.name}>
              {thing.name}
            </span>
            <span className="text-faint">{KINDS[thing.kind]}</span>
            {thing.mounted ? (
              <span className="col-span-4 text-faint">behind {thing.mounted}, as Stack has it</span>
            ) : thing.said ? (
              <>
                <Signed
                  label={`${thing.name}, to the right`}
                  value={thing.x}
                  onCommit={(x) => void stand(thing, { x })}
                />
                <Signed
                  label={`${thing.name}, up`}
                  value={thing.y}
                  onCommit={(y) => void stand(thing, { y })}
                />
                <LengthField
                  bare
                  label={`${thing.name}, behind`}
                  value={thing.behind}
                  onCommit={(behind) => void stand(thing, { behind })}
                />
                <button
                  type="button"
                  className="text-petrol underline"
                  onClick={() => void send([{ do: "forget_standing", device: thing.device }])}
                >
                  not known
                </button>
              </>
            ) : (
              <>
                {thing.kind === "relay" ? (
                  <span className="col-span-3 text-faint">at its control, until you say where</span>
                ) : (
                  <span className="col-span-3 text-judge">not said yet</span>
                )}
                <Button onClick={() => void stand(thing, spotFor(n, width))}>Below, behind</Button>
              </>
            )}
          </li>
        ))}
      </ul>
    </div>
  );
}

/** Below the opening and behind it, each beside the one before. */
const spotFor = (n: number, width: number) => ({
  x: Math.round(((n % 6) + 0.5) * (width / 6)),
  y: -100 - 60 * Math.floor(n / 6),
  behind: 150,
});

type Module = ReturnType<typeof useDesign>["design"]["modules"][number];

function widthOf(module: Module): number {
  const { outline } = module;
  return "width" in outline ? outline.width : 0;
}

interface SignedProps {
  label: string;
  value: number;
  onCommit: (mm: number) => void;
}

/** A length that may be less than nothing. */
function Signed({ label, value, onCommit }: SignedProps) {
  const { text, wrong, setText, commit, giveUp } = useLength(value, -10_000, onCommit);
  return (
    <input
      aria-label={label}
      className="num h-7 w-full rounded border border-faint bg-sheet px-1.5 text-right"
      value={text ?? String(Math.round(value * 10) / 10)}
      aria-invalid={wrong !== null}
      title={wrong ?? undefined}
      onChange={(event) => setText(event.target.value)}
      onBlur={() => void commit()}
      onKeyDown={(event) => {
        if (event.key === "Enter") event.currentTarget.blur();
        if (event.key === "Escape") giveUp();
      }}
    />
  );
}
