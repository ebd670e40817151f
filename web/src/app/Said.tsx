/** What was refused or needs saying, in the number line's place: it stays until it is read, and can be asked for again. */
import { useQueryClient } from "@tanstack/react-query";
import { many } from "../ui/figures";
import { askAgain, read, type Refusal, useQueue } from "./queue";
import { useSession } from "./session";

const LINK = "shrink-0 underline";

export function useSaid(): boolean {
  const refused = useQueue((s) => s.refused.length);
  const notice = useSession((s) => s.notice);
  return refused > 0 || notice !== null;
}

export function Said() {
  const refused = useQueue((s) => s.refused);
  const notice = useSession((s) => s.notice);
  const set = useSession((s) => s.set);
  const first = refused[0];
  if (first) return <Refused refusal={first} more={refused.length - 1} />;
  return (
    <p role="alert" className="flex min-w-0 flex-1 items-center gap-3 font-semibold text-must">
      <span className="line-clamp-2 min-w-0" title={notice ?? ""}>
        {notice}
      </span>
      <button type="button" className={LINK} onClick={() => set({ notice: null })}>
        Dismiss
      </button>
    </p>
  );
}

function Refused({ refusal, more }: { refusal: Refusal; more: number }) {
  const client = useQueryClient();
  const text = `${refusal.what} was not done: ${refusal.why}`;
  return (
    <div role="alert" className="flex min-w-0 flex-1 items-center gap-3 text-must">
      <span className="line-clamp-2 min-w-0 font-semibold" title={text}>
        {text}
      </span>
      <button type="button" className={LINK} onClick={() => askAgain(client, refusal)}>
        Try again
      </button>
      <button type="button" className={LINK} onClick={() => read(refusal.waiting.key)}>
        Dismiss
      </button>
      {more > 0 && <span className="shrink-0 text-faint">and {many(more, "more refusal")}</span>}
    </div>
  );
}
