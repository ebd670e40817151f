/** The selected function: what it is called, what it needs, what it switches, and the part chosen for it. */
import { Link } from "wouter";
import { editFunction, type FnChanges, removeFunction } from "../../api/commands";
import type { Fn } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { Button } from "../../ui/Button";
import { ChoiceField, FigureField, TextField } from "../../ui/fields";
import { LAMP_COLOURS, takesColours } from "../../app/lampColours";
import { WhichWay } from "./WhichWay";
import { CARRIERS, CURRENTS, DUTIES, HANDS, MOMENTS, RISKS, ROLES, STATES, WHEN_STOPPED } from "./wishes";

interface Props {
  fn: Fn;
}

export function FunctionSheet({ fn }: Props) {
  const { id, design, examples } = useDesign();
  const { send } = useChanges(id);
  const part = design.parts.find((p) => p.id === fn.part);
  const edit = (changes: FnChanges) => void send([editFunction(fn.id, changes)]);
  const stop = fn.risk === "emergency" || part?.family === "emergency";
  return (
    <section aria-label="Selected function" className="mb-5 rounded border border-rule bg-sheet p-3.5">
      <h2 className="mb-2 flex justify-between text-[13px]">
        <span className="truncate">{fn.name}</span>{" "}
        <span className="num font-normal text-faint">{fn.id}</span>
      </h2>
      <div className="grid grid-cols-2 gap-2.5">
        <TextField label="Name" value={fn.name} needed onCommit={(name) => edit({ name })} />
        <TextField label="Group" value={fn.group} onCommit={(group) => edit({ group })} />
        <TextField label="Control or light wanted" value={fn.want} onCommit={(want) => edit({ want })} />
        <TextField
          label="Positions, a word each"
          value={fn.positions.join(", ")}
          hint="UP, DOWN"
          onCommit={(text) => edit({ positions: text ? text.split(",").map((word) => word.trim()) : [] })}
        />
        <WhichWay fn={fn} onTurnOver={(positions) => edit({ positions })} />
        <ChoiceField label="Risk" value={fn.risk} options={RISKS} onCommit={(risk) => edit({ risk })} />
        <TextField
          label="Light that shows it"
          value={fn.indicator}
          hint="green lamp"
          onCommit={(indicator) => edit({ indicator })}
        />
        {takesColours(part) && (
          <ChoiceField
            label="Colour of its lamp"
            value={fn.colour ?? ""}
            options={[
              ["", `as its words say, or ${part?.colour}`],
              ...LAMP_COLOURS.map((c) => [c, c] as const),
            ]}
            onCommit={(colour) => edit({ colour: colour || null })}
          />
        )}
        {part?.digits && (
          <FigureField
            label={`Digits left showing, of ${part.digits.count}`}
            whole
            least={1}
            most={part.digits.count}
            value={fn.digits ?? null}
            hint="All"
            onEmpty={() => edit({ digits: null })}
            onCommit={(digits) => edit({ digits })}
          />
        )}
        {(part?.family === "readout" || part?.family === "display") && (
          <TextField
            label="Shown as an example"
            value={fn.example}
            hint={examples[fn.id]?.trim() ?? ""}
            onCommit={(example) => edit({ example: example.slice(0, 16) })}
          />
        )}
        {stop && (
          <ChoiceField
            label="This emergency stop is"
            value={fn.stop_role ?? ""}
            options={ROLES}
            onCommit={(role) => edit({ stop_role: role || null })}
          />
        )}
      </div>
      {stop && (
        <p className="mt-2 border-l-[3px] border-must pl-2.5 text-[12px]/[16px]">
          A real emergency stop breaks the power through its own hard-wired contact. It never passes a
          microcontroller.
        </p>
      )}
      <Switches fn={fn} edit={edit} />
      <Standing fn={fn} edit={edit} />
      <div className="mt-3 flex items-center gap-2">
        <Link
          href={`/d/${id}/parts?sel=${fn.id}`}
          className="inline-flex min-h-[26px] items-center rounded border border-ink bg-ink px-2 text-[12px] text-sheet"
        >
          {part ? `Part: ${part.name}` : "Choose a part"}
        </Link>
        <Button
          look="quiet"
          onClick={() => {
            useSession.getState().select([]);
            void send([removeFunction(fn.id)]);
          }}
        >
          Remove the function
        </Button>
      </div>
    </section>
  );
}

interface PieceProps extends Props {
  edit: (changes: FnChanges) => void;
}

function Switches({ fn, edit }: PieceProps) {
  const { switches } = fn;
  const { design, findings } = useDesign();
  const stopped = !fn.stop_role && switches.amps > 0 && design.functions.some((f) => f.stop_role === "real");
  const licensed = findings.some((f) => f.code === "brief.licensed" && f.subjects.includes(fn.id));
  const change = (changes: Partial<typeof switches>) => edit(changes);
  return (
    <fieldset className="mt-3">
      <legend className="text-[11px] text-faint">What it switches</legend>
      <div className="mt-1 grid grid-cols-[minmax(0,3fr)_minmax(0,2fr)_minmax(0,2fr)_minmax(0,2fr)] gap-2.5">
        <TextField label="Event" value={switches.event} onCommit={(event) => change({ event })} />
        <FigureField
          label="Load"
          unit="V"
          value={switches.volts || null}
          most={1000}
          onEmpty={() => change({ volts: 0 })}
          onCommit={(volts) => change({ volts })}
        />
        <FigureField
          label="Load"
          unit="A"
          value={switches.amps || null}
          most={200}
          onEmpty={() => change({ amps: 0 })}
          onCommit={(amps) => change({ amps })}
        />
        <TextField label="On bus" value={switches.bus} onCommit={(bus) => change({ bus })} />
      </div>
      <div className="mt-2 grid grid-cols-2 gap-2.5">
        <ChoiceField
          label="AC or DC"
          value={switches.current}
          options={CURRENTS}
          onCommit={(current) => change({ current })}
        />
        <ChoiceField
          label={fn.stop_role ? "Breaks power through" : "The load is carried by"}
          value={switches.through}
          options={CARRIERS}
          onCommit={(through) => change({ through })}
        />
        {stopped && (
          <ChoiceField
            label="When a stop is pressed"
            value={switches.stays_on ? "on" : "off"}
            options={WHEN_STOPPED}
            onCommit={(state) => change({ stays_on: state === "on" })}
          />
        )}
      </div>
      {licensed && (
        <p className="mt-1 border-l-[3px] border-must pl-2.5 text-[12px]/[16px]">
          This can kill. Leave its wiring to a licensed electrician.
        </p>
      )}
    </fieldset>
  );
}

function Standing({ fn, edit }: PieceProps) {
  const { design } = useDesign();
  const others = design.functions.filter((f) => f.id !== fn.id);
  return (
    <div className="mt-3 grid grid-cols-2 gap-2.5">
      <ChoiceField label="State" value={fn.state} options={STATES} onCommit={(state) => edit({ state })} />
      <ChoiceField
        label="Belongs to"
        value={fn.of ?? ""}
        options={[["", "nothing"], ...others.map((f) => [f.id, f.name] as const)]}
        onCommit={(of) => edit({ of: of || null })}
      />
      <ChoiceField label="Hand" value={fn.hand} options={HANDS} onCommit={(hand) => edit({ hand })} />
      <ChoiceField
        label="When it is used"
        value={fn.moment}
        options={MOMENTS}
        onCommit={(moment) => edit({ moment })}
      />
      <ChoiceField
        label="Kind"
        value={fn.duty ?? ""}
        options={DUTIES}
        onCommit={(duty) => edit({ duty: duty || null })}
      />
    </div>
  );
}
