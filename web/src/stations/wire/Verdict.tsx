/** What the solver did, what it could not, and what would make it fit, each with its price. */
import type { Command, Solved } from "../../api/types";
import { useDesign } from "../../app/design";
import { Button } from "../../ui/Button";
import { many, shown } from "../../ui/figures";
import { Mark } from "../../ui/Mark";
import { money } from "../../ui/money";

interface Props {
  solved: Solved;
  /** Whether the design has changed since: what fits and what is best is then not known any more. */
  passed: boolean;
  onAdd: (commands: Command[]) => void;
  onClose: () => void;
}

export function Verdict({ solved, passed, onAdd, onClose }: Props) {
  const { brief } = useDesign().design;
  const fits = solved.unfit.length === 0;
  if (fits && passed && solved.moved.length === 0) return null;
  return (
    <div role="status" className="border-b border-rule bg-sheet px-4 py-2.5 text-[12px]">
      <div className="flex items-start justify-between gap-4">
        <div className="min-w-0">
          {passed && (
            <p className="flex items-center gap-2">
              <Mark kind="judge" /> The design has changed since pins were assigned
              {fits ? "." : ": assign again to see what fits now, and what would help. Then it was this:"}
            </p>
          )}
          {fits ? (
            !passed && (
              <p className="flex items-center gap-2">
                <Mark kind="settled" /> Every line has a pin
                {solved.optimal
                  ? "; no better assignment exists."
                  : `; the best found in the time, at most ${shown(100 * solved.over, 1)} % from the best there is.`}
              </p>
            )
          ) : (
            <>
              <p className="flex items-center gap-2 font-semibold text-must">
                <Mark kind="must" /> {many(solved.unfit.length, "function")}
                {solved.unfit.length === 1 ? " does" : " do"} not fit
                {solved.short && <span className="font-normal text-ink">{solved.short}</span>}
              </p>
              <ul className="mt-1 max-h-24 overflow-y-auto">
                {solved.unfit.map((left) => (
                  <li key={left.function}>
                    <b>{left.name}</b> {left.reason}
                  </li>
                ))}
              </ul>
              {!passed && <Remedies solved={solved} currency={brief.currency} onAdd={onAdd} />}
            </>
          )}
          {solved.moved.length > 0 && (
            <details className="mt-1">
              <summary className="cursor-pointer">
                {many(solved.moved.length, "line")} moved to another pin: what was drawn or labelled for them
                is out of date
              </summary>
              <ul className="mt-1 max-h-28 overflow-y-auto">
                {solved.moved.map((line) => (
                  <li key={`${line.name} ${line.terminal}`}>
                    {line.name}, {line.terminal}: <span className="num">{line.was}</span>, now{" "}
                    <span className="num">{line.now}</span>
                  </li>
                ))}
              </ul>
            </details>
          )}
        </div>
        <Button look="quiet" onClick={onClose}>
          Close
        </Button>
      </div>
    </div>
  );
}

function Remedies({ solved, currency, onAdd }: { solved: Solved; currency: string; onAdd: Props["onAdd"] }) {
  if (solved.remedies.length === 0)
    return (
      <p className="mt-2 text-faint">
        No single further board, nor one way of reading a module with fewer pins, makes everything fit: take
        back pins that were set by hand, or add boards one by one.
      </p>
    );
  return (
    <ul aria-label="What would make everything fit" className="mt-2 flex flex-col gap-1">
      {solved.remedies.map((remedy, n) => (
        <li key={remedy.words} className="flex flex-wrap items-center gap-x-3">
          <Button look={n === 0 ? "solid" : "line"} onClick={() => onAdd(remedy.commands)}>
            {remedy.words}
          </Button>
          <span className="num text-faint">
            {remedy.money >= 0 ? "about " : "saves "}
            {money(Math.abs(remedy.money), currency)}, {remedy.minutes >= 0 ? "" : "saves "}
            {shown(Math.abs(remedy.minutes), 0)} minutes
          </span>
        </li>
      ))}
    </ul>
  );
}
