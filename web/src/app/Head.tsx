import { many } from "../ui/figures";
import { Mark } from "../ui/Mark";
import { useChanges, useDesign } from "./design";
import { useQueue } from "./queue";
import { applyTheme, useSession } from "./session";

const QUIET =
  "shrink-0 rounded px-1.5 py-1 max-[760px]:px-0.5 whitespace-nowrap text-[12px] text-faint hover:text-ink hover:bg-wash disabled:opacity-40";

/** The design's name, how it is kept, what is left before cutting, and the ways through the application. */
export function Head() {
  const view = useDesign();
  const { undo, redo } = useChanges(view.id);
  const set = useSession((s) => s.set);
  return (
    <header className="col-span-3 flex items-center gap-2 border-b border-rule bg-card pr-3 max-[760px]:gap-1.5 max-[760px]:pr-1.5">
      <div className="grid h-full w-[76px] shrink-0 max-[900px]:w-[62px] place-items-center border-r border-rule">
        <LogoMark />
      </div>
      <button
        type="button"
        className="ml-2 min-w-24 truncate rounded px-1.5 py-1 text-[14px] font-semibold hover:bg-wash"
        onClick={() => set({ dialog: "designs" })}
        title="Switch, copy, import or export designs"
      >
        {view.design.name} <span className="text-faint">▾</span>
      </button>
      <span className="min-w-0 truncate text-[12px] text-faint max-[760px]:hidden">
        {view.design.brief.title && <>{view.design.brief.title} · </>}
        <KeptAt />
      </span>
      <span className="flex-1" />
      <Readiness />
      <button
        type="button"
        className={QUIET}
        disabled={!view.can_undo}
        onClick={() => void undo()}
        title={`Undo: ${view.label}`}
      >
        Undo <kbd className="num text-[11px] max-[900px]:hidden">Z</kbd>
      </button>
      <button type="button" className={QUIET} disabled={!view.can_redo} onClick={() => void redo()}>
        Redo
      </button>
      <button type="button" className={QUIET} onClick={() => set({ dialog: "palette" })}>
        Find <kbd className="num text-[11px] max-[900px]:hidden">/</kbd>
      </button>
      <ThemeButton />
      <button type="button" className={QUIET} onClick={() => set({ dialog: "help" })}>
        Help <kbd className="num text-[11px] max-[900px]:hidden">?</kbd>
      </button>
    </header>
  );
}

function KeptAt() {
  const { kept_at, revision } = useDesign();
  const link = useQueue((s) => s.link);
  const waiting = useQueue((s) => s.waiting.filter((one) => one.kept === null).length);
  if (link === "waiting") {
    return (
      <span role="status" className="font-semibold text-must">
        {`The server does not answer; ${waiting ? `${many(waiting, "change")} wait${waiting === 1 ? "s" : ""} here` : "asking again"}`}
      </span>
    );
  }
  const at = new Date(kept_at).toLocaleTimeString([], { hour: "2-digit", minute: "2-digit" });
  return (
    <span role="status">
      {link === "sending" ? "Saving…" : `Saved ${at}`}, revision {revision}
    </span>
  );
}

function Readiness() {
  const { readiness } = useDesign();
  const { to_fix, to_judge, overridden, ready, waits } = readiness;
  const wait = waits.find((w) => w.station !== "wire" && w.station !== "cut");
  const set = useSession((s) => s.set);
  return (
    <button
      type="button"
      className="flex shrink-0 items-center gap-2 rounded border border-rule bg-sheet px-2.5 py-1 text-[12px] max-[760px]:gap-1 max-[760px]:px-1.5 hover:border-petrol"
      onClick={() => set({ scope: "all", worklist: true })}
      title="Show everything that is left"
    >
      {to_fix + to_judge === 0 ? (
        <>
          {ready && <Mark kind="settled" />} {ready ? "ready to be cut" : (wait?.words ?? "not ready")}
        </>
      ) : (
        <>
          <Mark kind="must" /> {to_fix} to fix <Mark kind="judge" /> {to_judge} to judge
          <span className="text-faint max-[1100px]:hidden">
            {wait && !ready ? `and ${wait.words[0]?.toLowerCase()}${wait.words.slice(1)}` : "before cutting"}
          </span>
        </>
      )}
      {overridden > 0 && <span className="text-must">{overridden} overridden</span>}
    </button>
  );
}

function ThemeButton() {
  const theme = useSession((s) => s.theme);
  const set = useSession((s) => s.set);
  const other = theme === "day" ? "night" : "day";
  return (
    <button
      type="button"
      className={QUIET}
      onClick={() => {
        applyTheme(other);
        set({ theme: other });
      }}
    >
      {other === "night" ? "Night" : "Day"}
    </button>
  );
}

export function LogoMark() {
  return (
    <svg width="30" height="22" viewBox="0 0 30 22" role="img" aria-label="Wing Board">
      <path d="M2 20V9.5C2 5 8 2 15 2s13 3 13 7.5V20z" fill="none" stroke="var(--ink)" strokeWidth="2" />
      <circle cx="9" cy="12.5" r="2.2" fill="var(--petrol)" />
      <circle cx="15" cy="12.5" r="2.2" fill="none" stroke="var(--ink)" strokeWidth="1.6" />
      <path d="M21 10v5" stroke="var(--ink)" strokeWidth="2.2" strokeLinecap="round" />
    </svg>
  );
}
