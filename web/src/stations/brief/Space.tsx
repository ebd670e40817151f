/** The space: the opening from the front and the panel from the side, dragged in the drawings or typed below them. */
import { type BriefChanges, setBrief } from "../../api/commands";
import type { Command } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { KINDS } from "../../app/kinds";
import { ChoiceField, TextField } from "../../ui/fields";
import { FrontElevation } from "./FrontElevation";
import { KeepOuts } from "./KeepOuts";
import { Modules } from "./Modules";
import { Screws } from "./Screws";
import { OpeningForm } from "./OpeningForm";
import { Person } from "./Person";
import { SideElevation } from "./SideElevation";
import { Surroundings } from "./Surroundings";
import { useBrief } from "./useBrief";

export function Space() {
  const view = useDesign();
  const { send } = useChanges(view.id);
  const { brief } = view.design;
  const follows = useBrief();
  const change = (changes: BriefChanges) => send([setBrief(changes)]);
  const carryOut = (command: Command) => send([command]);
  const set = (changes: BriefChanges) => void change(changes);
  const one = (command: Command) => void carryOut(command);
  return (
    <section aria-label="Space">
      <h2 className="text-[13px]">The space, from the front</h2>
      <FrontElevation view={view} />
      <h2 className="mt-4 text-[13px]">From the side</h2>
      <div className="min-h-52">
        {follows.data && (
          <SideElevation name={view.id} side={follows.data.side} brief={brief} set={change} send={carryOut} />
        )}
      </div>
      <div className="mt-3 grid grid-cols-2 gap-2.5">
        <ChoiceField
          label="Kind of panel"
          value={brief.kind}
          options={KINDS}
          onCommit={(kind) => set({ kind })}
        />
        <TextField label="In a few words" value={brief.title} onCommit={(title) => set({ title })} />
      </div>
      {brief.kind === "aircraft" && (
        <p className="mt-2 border-l-[3px] border-judge pl-2.5 text-[12px] text-judge">
          For planning only. A real aircraft answers to its authority's rules and to licensed practice.
        </p>
      )}
      {(brief.kind === "vehicle" || brief.kind === "boat") && (
        <p className="mt-2 border-l-[3px] border-judge pl-2.5 text-[12px] text-judge">
          A real {brief.kind === "boat" ? "boat" : "road or rail vehicle"} answers to its authority's rules;
          this plans, it does not approve.
        </p>
      )}
      <Surroundings environment={brief.environment} send={one} />
      <OpeningForm set={set} />
      <Person brief={brief} set={set} send={one} />
      <KeepOuts view={view} />
      <Modules chain={follows.data?.chain ?? null} />
      <Screws />
    </section>
  );
}
