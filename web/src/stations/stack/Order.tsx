/** The order in which it is put together, with what is easily forgotten. */
import type { StackView } from "../../api/types";

export function Order({ stack }: { stack: StackView }) {
  return (
    <ol aria-label="Order of putting it together" className="space-y-2.5 p-3.5 text-[12px]">
      {stack.steps.map((step, n) => (
        <li key={step.words} className="grid grid-cols-[18px_minmax(0,1fr)] gap-x-1.5">
          <span className="num text-faint">{n + 1}</span>
          <span>
            {step.words}
            {step.mind && <span className="block text-[11px] text-faint">{step.mind}</span>}
          </span>
        </li>
      ))}
    </ol>
  );
}
