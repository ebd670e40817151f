import { retract } from "../api/commands";
import type { Finding } from "../api/types";
import { Button } from "../ui/Button";
import { isMeasured, withUnit } from "../ui/figures";
import { Mark, TEXT } from "../ui/Mark";
import { applyFix, useFix } from "./fixes";
import { useChanges, useDesign } from "./design";
import { useSession } from "./session";
import { goTo } from "./worklist";

/** A finding: weight, what, measured against needed, what it rests on, and the ways to settle it. */
export function FindingRow({ finding, open }: { finding: Finding; open: boolean }) {
  const view = useDesign();
  const set = useSession((s) => s.set);
  const settled = finding.accepted != null;
  return (
    <li
      data-focus={open}
      data-code={finding.code}
      className={`border-t border-rule py-2 pr-3.5 pl-2 ${open ? "bg-warm" : ""}`}
      onMouseEnter={() => set({ hot: finding.subjects })}
      onMouseLeave={() => set({ hot: [] })}
    >
      <button
        type="button"
        className="grid w-full grid-cols-[22px_1fr] rounded text-left"
        onClick={() => goTo(finding, view)}
      >
        <Mark
          kind={settled && finding.severity !== "must" ? "settled" : finding.severity}
          className="mt-1 ml-1.5"
        />
        <span>
          <span className={finding.severity === "note" ? "" : "font-semibold"}>{finding.title}</span>
          <span className="block text-[12px]/[16px] text-faint">{finding.detail}</span>
        </span>
      </button>
      <div className="pl-[22px]">
        <Figures finding={finding} bar={open} />
        {settled && (
          <p className={`mt-1 text-[12px] ${finding.severity === "must" ? "text-must" : "text-ok"}`}>
            {finding.severity === "must" ? "Overridden" : "Accepted"}: {finding.accepted}
          </p>
        )}
        {open && !settled && <Source finding={finding} />}
        <Actions finding={finding} open={open} />
      </div>
    </li>
  );
}

function Figures({ finding, bar }: { finding: Finding; bar: boolean }) {
  const { measured, needed } = finding;
  if (!measured || !needed || finding.severity === "note") return null;
  const top = Math.max(measured.value, needed.value, 1e-9) * 1.12;
  const share = (value: number) => `${Math.max(0, Math.min(100, (value / top) * 100))}%`;
  return (
    <>
      {bar && (
        <div className="relative mt-1.5 h-3.5 border-b border-ink" aria-hidden="true">
          <i
            className={`absolute bottom-0 left-0 h-[7px] ${finding.severity === "must" ? "bg-must" : "bg-judge"}`}
            style={{ width: share(measured.value) }}
          />
          <i
            className="absolute bottom-0 h-[13px] border-l-[1.5px] border-ink"
            style={{ left: share(needed.value) }}
          />
        </div>
      )}
      <div className="num mt-1 flex flex-wrap justify-between gap-x-3">
        <span className={TEXT[finding.severity]}>
          {withUnit(measured.value, measured.unit, needed.value)}
          {isMeasured(measured.unit) && " measured"}
        </span>
        <span>
          {withUnit(needed.value, isMeasured(needed.unit) ? needed.unit : "", measured.value).trim()}{" "}
          {finding.bound === "least" ? "needed" : finding.bound === "most" ? "at most" : "is too much"}
        </span>
      </div>
    </>
  );
}

function Source({ finding }: { finding: Finding }) {
  const { kind, note } = finding.source;
  const words = {
    published: "",
    memory: "from memory",
    practice: "common practice",
    computed: "computed",
    measure: "your figure",
  };
  return (
    <p className="mt-0.5 text-[12px]/[16px] text-faint">{[note, words[kind]].filter(Boolean).join(", ")}.</p>
  );
}

function Actions({ finding, open }: { finding: Finding; open: boolean }) {
  const { id } = useDesign();
  const changes = useChanges(id);
  const { send } = changes;
  const set = useSession((s) => s.set);
  const offer = useFix(finding, open);
  if (finding.accepted != null) {
    return (
      <Button look="quiet" className="mt-1 -ml-2" onClick={() => void send([retract(finding.id)])}>
        Restore
      </Button>
    );
  }
  const over = finding.severity === "must";
  const acceptable = finding.severity === "judge" || (over && finding.overridable);
  const fix = offer.data?.fix;
  if (!open || (!finding.fixable && !acceptable)) return null;
  return (
    <div className="mt-2 flex flex-wrap gap-2">
      {fix && (
        <Button look="solid" keys="S" onClick={() => void applyFix(id, () => finding.id, changes)}>
          {fix.label}
        </Button>
      )}
      {finding.fixable && !fix && (
        <span className="py-1 text-[12px] text-faint">
          {offer.isPending
            ? "Looking for a fix…"
            : offer.isError
              ? `The fix cannot be asked for now: ${offer.error.message}`
              : `No fix: ${offer.data?.why ?? ""}.`}
        </span>
      )}
      {acceptable && (
        <Button keys="A" onClick={() => set({ dialog: "accept", focus: finding.id })}>
          {over ? "Override…" : "Accept…"}
        </Button>
      )}
    </div>
  );
}
