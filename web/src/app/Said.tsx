/** What was refused or needs saying, above the number line: it stays until it is read, and can be asked for again. */
import { useQueryClient } from "@tanstack/react-query";
import { many } from "../ui/figures";
import { useDesign } from "./design";
import { askAgain, read, type Refusal, useQueue } from "./queue";
import { useSession } from "./session";

const LINK = "shrink-0 underline";

export function Said() {
  const { id } = useDesign();
  const all = useQueue((s) => s.refused).filter((one) => one.waiting.design === id);
  const refused = all.filter((one) => one.waiting.ask.to !== "wish"); // those are said where they were typed
  const notice = useSession((s) => s.notice);
  const set = useSession((s) => s.set);
  const [first] = refused;
  if (!first && notice === null) return <div className="col-span-3" />;
  return (
    <div
      role="alert"
      className="col-span-3 flex min-h-9 items-center gap-3 border-t border-must bg-sheet py-1 pr-3 pl-[90px] text-[12px] text-must"
    >
      {first ? (
        <Refused refusal={first} more={refused.length - 1} />
      ) : (
        <>
          <span className="font-semibold">{notice}</span>
          <button type="button" className={LINK} onClick={() => set({ notice: null })}>
            Dismiss
          </button>
        </>
      )}
    </div>
  );
}

function Refused({ refusal, more }: { refusal: Refusal; more: number }) {
  const client = useQueryClient();
  const text = `${refusal.what} was not done: ${refusal.why}`;
  return (
    <>
      <span className="font-semibold">{text}</span>
      <button type="button" className={LINK} onClick={() => askAgain(client, refusal)}>
        Try again
      </button>
      <button type="button" className={LINK} onClick={() => read(refusal.waiting.key)}>
        Dismiss
      </button>
      {more > 0 && <span className="shrink-0 text-faint">and {many(more, "more refusal")}</span>}
    </>
  );
}
