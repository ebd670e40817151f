/** The wiring sheet: every wire with both its ends as they are marked, in small groups that end in a test. */
import { useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { answered, api } from "../../api/client";
import type { Joint, WiringSheetView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { useTrade } from "../../app/trade";
import { many, shown as figure } from "../../ui/figures";
import { NotThere } from "../../ui/NotThere";
import { Tabs } from "../../ui/Tabs";
import { inkOf } from "./inks";

type Step = WiringSheetView["steps"][number];
type EndWords = Joint["start"];
const OUTSIDE = "";

/** `first`: what is sought at first. */
export function WiringSheet({ first }: { first: string }) {
  const view = useDesign();
  const [module, setModule] = useState<string | null>(null);
  const [sought, setSought] = useState(first);
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
  const wanted = sought.trim().toLowerCase();
  const names = new Map(view.design.functions.map((fn) => [fn.id, fn.name]));
  const shown = wanted
    ? steps.map((step) => withOnly(step, wanted, names)).filter((s) => s.joints.length > 0)
    : null;
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
        <input
          type="search"
          aria-label="Find a wire by what is on its ends, its number or its colour"
          placeholder="Find a wire, a terminal, a pin"
          className="my-1 h-7 w-52 rounded border border-faint bg-sheet px-2 text-[12px]"
          value={sought}
          onChange={(event) => setSought(event.target.value)}
        />
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
        <div className="grid gap-x-6 min-[1560px]:grid-cols-[minmax(0,1fr)_15rem]">
          <div>
            {(shown ?? steps.filter((step) => step.module === here)).map((step) => (
              <OneStep key={step.id} step={step} />
            ))}
            {shown?.length === 0 && <p className="p-4 text-faint">No wire has “{sought.trim()}” on it.</p>}
          </div>
          {!shown && <SmallParts small={small.filter((part) => part.module === here)} />}
        </div>
      </div>
    </div>
  );
}

/** A group with only the wires that have these words on them, or end on a small part of what is called so. */
function withOnly(step: Step, wanted: string, names: ReadonlyMap<string, string>): Step {
  const of = (end: EndWords) => `${said(end)} ${names.get(end.owner) ?? ""}`;
  const has = (joint: Joint) =>
    [joint.number, of(joint.start), of(joint.end), joint.colour, joint.stripe]
      .join(" ")
      .toLowerCase()
      .includes(wanted);
  return { ...step, joints: step.joints.filter(has) };
}

function OneStep({ step }: { step: Step }) {
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
          <span className="num pr-2 text-faint">{step.joints[0]?.number.split(".")[0]}</span>
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
        className={`grid min-w-0 flex-1 grid-cols-[2.75rem_minmax(0,1fr)_3.25rem_minmax(0,1fr)_11.5rem] justify-items-stretch items-center gap-x-2 text-left max-[1000px]:grid-cols-[2.75rem_minmax(0,1fr)_3.25rem_minmax(0,1fr)] ${joint.done ? "text-faint" : ""}`}
        onClick={() => owner && useSession.getState().select([owner])}
        aria-label={`Select ${said(joint.start)}`}
      >
        <span className="num text-faint">{joint.number}</span>
        <End end={joint.start} before />
        <Line joint={joint} />
        <End end={joint.end} />
        <Cut joint={joint} />
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
      title={[said(end), end.lies, named, end.module, `label “${end.label}”`].filter(Boolean).join(", ")}
    >
      {named && <span className="truncate text-[11px] text-faint">{named}</span>}
      <span className={named ? "shrink-0" : "truncate"}>{end.device}</span>
      {end.lies && <span className="shrink-[3] truncate text-[11px] text-faint">{end.lies}</span>}
      <b className="num shrink-0">{end.terminal}</b>
    </span>
  );
}

/** A wire in its own colour, or where there is none the leg of a small part, shorter. */
function Line({ joint }: { joint: Joint }) {
  const inks = useTrade()?.wire_inks;
  const leg = joint.how !== "wire";
  const ink = leg ? "var(--note)" : inkOf(inks, joint.colour);
  const words = {
    wire: `${colourOf(joint)} wire`,
    leg: "by its own leg",
    board: "on the strip board",
    bridge: "bridge",
  };
  return (
    <svg viewBox="0 0 36 10" className="mx-auto h-2.5 w-9" role="img" aria-label={words[joint.how]}>
      {!leg && <line x1={4} x2={32} y1={5} y2={5} stroke="var(--note)" strokeWidth={4.5} />}
      <line x1={leg ? 12 : 4} x2={leg ? 24 : 32} y1={5} y2={5} stroke={ink} strokeWidth={leg ? 1 : 3.2} />
      {joint.stripe && !leg && (
        <line
          x1={4}
          x2={32}
          y1={5}
          y2={5}
          stroke={inkOf(inks, joint.stripe)}
          strokeWidth={3.2}
          strokeDasharray="4 4"
        />
      )}
      {[leg ? 12 : 4, leg ? 24 : 32].map((x) => (
        <circle key={x} cx={x} cy={5} r={2.5} fill="var(--note)" />
      ))}
    </svg>
  );
}

const colourOf = (joint: Joint) => (joint.stripe ? `${joint.colour}-${joint.stripe}` : joint.colour);

/** What is cut for it: colour, cross-section, length; a length that follows from no place is to be measured. */
function Cut({ joint }: { joint: Joint }) {
  if (joint.how !== "wire")
    return (
      <span className="text-[11px] text-faint max-[1000px]:hidden">
        {{ leg: "its own leg", board: "on the strip board", bridge: "bridge, both halves" }[joint.how]}
      </span>
    );
  const amps = joint.amps >= 0.1 ? `, carries ${joint.amps.toFixed(2)} A` : "";
  return (
    <span
      className="flex min-w-0 gap-2 text-[11px] max-[1000px]:hidden"
      title={`AWG ${joint.awg}${amps}${joint.said ? "" : "; measure before you cut: where its far end stands is not said"}`}
    >
      <span className="w-16 shrink-0 truncate">{colourOf(joint)}</span>
      <span className="num w-9 shrink-0 text-right text-faint">{joint.area}</span>
      <span className={`num flex-1 text-right ${joint.said ? "" : "text-judge"}`}>
        {joint.said ? "" : "~"}
        {joint.length} mm
      </span>
    </span>
  );
}

function SmallParts({ small }: { small: WiringSheetView["small"] }) {
  if (small.length === 0) return null;
  return (
    <section aria-label="Small parts" className="border-rule px-4 py-2.5 text-[12px] min-[1560px]:border-l">
      <h3 className="font-semibold">Small parts</h3>
      <ul className="mt-1 columns-3 gap-6 max-[1000px]:columns-1 min-[1560px]:columns-1">
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

const ohms = (value: number) => (value >= 1000 ? `${figure(value / 1000)} kΩ` : `${value} Ω`);
