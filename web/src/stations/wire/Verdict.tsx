/** What the solver could not do, and what would make it fit. */
import type { Command, Solved } from "../../api/types";
import { useTrade } from "../../app/trade";
import { Button } from "../../ui/Button";
import { Mark } from "../../ui/Mark";
import { many } from "../../ui/figures";

interface Props {
  solved: Solved;
  onAdd: (commands: Command[]) => void;
  onClose: () => void;
}

export function Verdict({ solved, onAdd, onClose }: Props) {
  const trade = useTrade();
  const boards = solved.would_fit.map(
    (c) => `an ${trade?.controllers.find((k) => k.board === c.board)?.name ?? c.board}`,
  );
  return (
    <div role="status" className="border-b border-rule bg-sheet px-4 py-2.5 text-[12px]">
      <div className="flex items-start justify-between gap-4">
        {solved.unfit.length === 0 ? (
          <p className="flex items-center gap-2">
            <Mark kind="settled" /> Every line has a pin
            {solved.optimal ? "; no better assignment exists." : "; the best found in the time."}
          </p>
        ) : (
          <div>
            <p className="flex items-center gap-2 font-semibold text-must">
              <Mark kind="must" /> {many(solved.unfit.length, "function")}
              {solved.unfit.length === 1 ? " does" : " do"} not fit
            </p>
            <ul className="mt-1 max-h-24 overflow-y-auto">
              {solved.unfit.map((left) => (
                <li key={left.function}>
                  <b>{left.name}</b> {left.reason}
                </li>
              ))}
            </ul>
            {boards.length > 0 && (
              <Button look="solid" className="mt-2" onClick={() => onAdd(solved.would_fit)}>
                Add {boards.join(" and ")}: then everything fits
              </Button>
            )}
          </div>
        )}
        <Button look="quiet" onClick={onClose}>
          Close
        </Button>
      </div>
    </div>
  );
}
