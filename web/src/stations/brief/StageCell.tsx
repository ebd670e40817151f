/** A stage of a function as a dot in its row: it leads to where that stage is done. */
import type { Fn } from "../../api/types";
import { useSession } from "../../app/session";
import { type At, type Stage, STAGES } from "./columns";
import { type GridContext, useGrid, useHere } from "./grid";

interface StageProps {
  fn: Fn;
  stage: Stage;
  passed: boolean;
  context: () => GridContext;
}

/** A stage as a dot: it leads to where that stage is done. */
export function StageCell({ fn, stage, passed, context }: StageProps) {
  const at: At = { fn: fn.id, column: stage };
  const here = useHere(at);
  const [, words, station] = STAGES.find(([key]) => key === stage) ?? STAGES[0];
  const n = STAGES.findIndex(([key]) => key === stage);
  return (
    <div
      id={`cell-${fn.id}-${stage}`}
      role="gridcell"
      tabIndex={here ? 0 : -1}
      aria-label={`${words}: ${passed ? "done" : "not yet"}`}
      title={`${words}: ${passed ? "done" : "not yet"}; go there`}
      className="grid h-full cursor-pointer place-items-center outline-offset-[-2px]"
      onFocus={() => useGrid.getState().set({ at })}
      onClick={(event) => {
        event.stopPropagation();
        useSession.getState().select([fn.id]);
        context().go(station);
      }}
    >
      <svg width="26" height="12" viewBox="0 0 26 12" aria-hidden="true">
        <path
          d={`M${n === 0 ? 13 : 0} 6H${n === STAGES.length - 1 ? 13 : 26}`}
          stroke={passed ? "var(--petrol)" : "var(--rule)"}
        />
        <circle
          cx="13"
          cy="6"
          r="3.8"
          fill={passed ? "var(--petrol)" : "var(--sheet)"}
          stroke={passed ? "var(--petrol)" : "var(--faint)"}
        />
      </svg>
    </div>
  );
}
