/** The wiring sheet: every wire with both its ends as they are marked, in small groups that end in a test. */
import { useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { answered, api } from "../../api/client";
import type { Joint, WiringSheetView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { many, shown } from "../../ui/figures";
import { NotThere } from "../../ui/NotThere";
import { Tabs } from "../../ui/Tabs";

type Step = WiringSheetView["steps"][number];
type EndWords = Joint["start"];
const OUTSIDE = "";

export function WiringSheet() {
  const view = useDesign();
  const [module, setModule] = useState<string | null>(null);
  const sheet = useQuery({
    queryKey: ["wiring-sheet", view.id, view.revision],
    queryFn: () =>
      answered(api.GET("/api/designs/{design_id}/wire/sheet", { params: { path: { design_id: view.id } } })),
    placeholderData: (before) => before,
  });
  const modules = useMemo(() => {
    const there = new Set(sheet.data?.steps.map((step) => step.module));
    const named = view.design.modules.filter((m) => there.has(m.id)).map((m) => [m.id, m.name] as const);
    return there.has(OUTSIDE) ? [...named, [OUTSIDE, "Outside the modules"] as const] : named;
  }, [sheet.data, view.design.modules]);
  if (!sheet.data) return <NotThere query={sheet} words="Listing the wires…" />;
  const { steps, small, unsaid, cautions } = sheet.data;
  if (steps.length === 0)
    return (
      <p className="p-6 text-faint">
        No wires yet: place parts on the face, and add a controller for them. Each wire is listed here with
        both its ends.
      </p>
    );
  const here =
    module !== null && modules.some(([id]) => id === module) ? module : (modules[0]?.[0] ?? OUTSIDE);
  const joints = steps.flatMap((step) => step.joints);
  const done = joints.filter((joint) => joint.done).length;
  const legs = joints.filter((joint) => joint.how === "leg").length;
  const bridges = joints.filter((joint) => joint.how === "board").length;
  return (
    <div className="flex h-full min-h-0 flex-col bg-sheet">
      <div className="flex shrink-0 flex-wrap items-end justify-between gap-x-4 border-b border-rule bg-card">
        <Tabs label="Module" tabs={modules} now={here} onChange={setModule} />
        <p className="px-4 pb-1.5 text-[12px] text-faint">
          <span className="num">
            {done} of {joints.length}
          </span>{" "}
          soldered; {many(joints.length - legs - bridges, "wire")}, {many(legs, "leg")} of small parts
          {bridges > 0 && <>, {many(bridges, "joint")} on strip boards</>}
        </p>
      </div>
      <div className="min-h-0 flex-1 overflow-y-auto">
        <ul className="space-y-1 border-b border-rule px-4 py-2 text-[12px]/[16px]">
          {cautions.map((words) => (
            <li key={words} className="border-l-[3px] border-judge pl-2.5">
              {words}
            </li>
          ))}
        </ul>
        {unsaid.map((words) => (
          <p key={words} className="border-b border-rule bg-wash px-4 py-1.5 text-[12px] text-judge">
            {words}: what goes there is missing below
          </p>
        ))}
        <div className="grid gap-x-6 min-[1100px]:grid-cols-[minmax(0,1fr)_15rem]">
          <div>
            {steps
              .filter((step) => step.module === here)
              .map((step, n) => (
                <OneStep key={step.id} step={step} n={n + 1} />
              ))}
          </div>
          <SmallParts small={small.filter((part) => part.module === here)} />
        </div>
      </div>
    </div>
  );
}

function OneStep({ step, n }: { step: Step; n: number }) {
  const { id } = useDesign();
  const { send } = useChanges(id);
  const open = step.joints.filter((joint) => !joint.done);
  const mark = (wires: string[], soldered: boolean) => void send([{ do: "set_soldered", wires, soldered }]);
  return (
    <section
      aria-label={step.title}
      className="border-b border-rule px-4 py-2.5 [contain-intrinsic-size:auto_260px] [content-visibility:auto]"
    >
      <div className="flex items-baseline justify-between gap-3">
        <h3 className="text-[13px] font-semibold">
          <span className="num pr-2 text-faint">{n}</span>
          {step.title}
        </h3>
        <button
          type="button"
          className="shrink-0 text-[12px] text-petrol underline hover:no-underline"
          onClick={() =>
            mark(
              (open.length > 0 ? open : step.joints).map((joint) => joint.id),
              open.length > 0,
            )
          }
        >
          {open.length > 0 ? `All ${step.joints.length} soldered` : "None of them soldered"}
        </button>
      </div>
      <ul className="mt-1">
        {step.joints.map((joint) => (
          <OneJoint key={joint.id} joint={joint} onMark={(soldered) => mark([joint.id], soldered)} />
        ))}
      </ul>
      <p className="mt-1.5 border-l-[3px] border-petrol pl-2.5 text-[12px]/[16px] text-faint">
        Then test: {step.test}
      </p>
    </section>
  );
}

function OneJoint({ joint, onMark }: { joint: Joint; onMark: (soldered: boolean) => void }) {
  const owner = joint.start.owner || joint.end.owner;
  const selected = useSession((s) => owner !== "" && s.selection.includes(owner));
  return (
    <li className={`flex items-center gap-2.5 py-[3px] text-[12px] ${selected ? "bg-wash" : ""}`}>
      <input
        type="checkbox"
        className="accent-petrol"
        aria-label={`${said(joint.start)} to ${said(joint.end)} is soldered`}
        checked={joint.done}
        onChange={(event) => onMark(event.target.checked)}
      />
      <button
        type="button"
        className={`grid min-w-0 flex-1 grid-cols-[minmax(0,1fr)_3.25rem_minmax(0,1fr)] justify-items-stretch items-center text-left ${joint.done ? "text-faint" : ""}`}
        onClick={() => owner && useSession.getState().select([owner])}
        aria-label={`Select ${said(joint.start)}`}
      >
        <End end={joint.start} before />
        <Line kind={joint.kind} how={joint.how} />
        <End end={joint.end} />
      </button>
    </li>
  );
}

const said = (end: EndWords) => `${end.device} ${end.terminal}`;

/** A device with its terminal beside the wire; a small part says what it belongs to. */
function End({ end, before = false }: { end: EndWords; before?: boolean }) {
  const owner = useDesign().design.functions.find((f) => f.id === end.owner)?.name;
  const named = owner && !end.device.startsWith(owner) ? `for ${owner}` : "";
  return (
    <span
      className={`flex min-w-0 items-baseline gap-1.5 ${before ? "justify-end" : "flex-row-reverse justify-end"}`}
      title={[said(end), named, end.module].filter(Boolean).join(", ")}
    >
      {named && <span className="truncate text-[11px] text-faint">{named}</span>}
      <span className={named ? "shrink-0" : "truncate"}>{end.device}</span>
      <b className="num shrink-0">{end.terminal}</b>
    </span>
  );
}

const INK = {
  ground: "var(--ink)",
  supply: "var(--must)",
  load: "var(--judge)",
  signal: "var(--petrol)",
} as const;

/** A wire, or where there is none the leg of a small part, shorter and dotted. */
function Line({ kind, how }: { kind: Joint["kind"]; how: Joint["how"] }) {
  const leg = how !== "wire";
  return (
    <svg
      viewBox="0 0 36 10"
      className="mx-auto h-2.5 w-9"
      role="img"
      aria-label={how === "leg" ? "by its own leg" : how === "board" ? "on the strip board" : `${kind} wire`}
    >
      <line x1={leg ? 12 : 4} x2={leg ? 24 : 32} y1={5} y2={5} stroke={INK[kind]} strokeWidth={leg ? 1 : 2} />
      {[leg ? 12 : 4, leg ? 24 : 32].map((x) => (
        <circle key={x} cx={x} cy={5} r={2.5} fill={INK[kind]} />
      ))}
    </svg>
  );
}

function SmallParts({ small }: { small: WiringSheetView["small"] }) {
  if (small.length === 0) return null;
  return (
    <section aria-label="Small parts" className="border-l border-rule px-4 py-2.5 text-[12px]">
      <h3 className="font-semibold">Small parts</h3>
      <ul className="mt-1">
        {small.map((part) => (
          <li key={part.mark} className="flex gap-2 py-[2px]">
            <b className="num w-9 shrink-0">{part.mark}</b>
            <span className="min-w-0 text-faint">
              {part.ohms > 0 ? (
                <>
                  <span className="num text-ink">{ohms(part.ohms)}</span>,{" "}
                </>
              ) : (
                part.kind !== "chip" && part.kind !== "capacitor" && `${part.kind}, `
              )}
              {part.name}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

const ohms = (value: number) => (value >= 1000 ? `${shown(value / 1000)} kΩ` : `${value} Ω`);
