/** Machines with their beds, and which module fits which. */
import { answered, api } from "../../api/client";
import type { BriefView, Command, DesignView, Machine } from "../../api/types";
import { PROCESS_NAMES, useTrade } from "../../app/trade";
import { Button } from "../../ui/Button";
import { ChoiceField, FigureField, LengthField, TextField } from "../../ui/fields";
import { Beds } from "./Beds";
import { TakeAway } from "../../ui/TakeAway";

type Process = Machine["kind"];
type Send = (command: Command) => void;

interface Props {
  view: DesignView;
  send: Send;
}

export function Machines({ view, send, beds }: Props & { beds: BriefView["beds"] }) {
  const { machines } = view.design.workshop;
  const usual = useTrade()?.machines ?? [];
  const add = (kind: Process) => {
    const machine = usual.find((m) => m.kind === kind);
    if (machine) send({ do: "add_machine", ...machine });
  };
  return (
    <section aria-label="Machines">
      <h3 className="text-[12px]">What can you cut with?</h3>
      <p className="mt-1 flex flex-wrap gap-1.5">
        {PROCESS_NAMES.map(([kind, name]) => (
          <Button key={kind} disabled={usual.length === 0} onClick={() => add(kind)}>
            Add a {name}
          </Button>
        ))}
      </p>
      {machines.length === 0 && (
        <p className="mt-1 text-[12px] text-faint">
          Nothing yet. With a machine's bed known, modules too large for it are found before they are laid
          out.
        </p>
      )}
      {machines.map((m) => (
        <MachineRow
          key={m.id}
          machine={m}
          send={send}
          beds={beds.filter((b) => b.machine === m.id)}
          view={view}
        />
      ))}
    </section>
  );
}

function MachineRow({
  machine,
  send,
  beds,
  view,
}: {
  machine: Machine;
  send: Send;
  beds: BriefView["beds"];
  view: DesignView;
}) {
  const set = (changes: Partial<Omit<Machine, "id">>) =>
    send({ do: "edit_machine", machine: machine.id, ...changes });
  const bladed = machine.kind === "mill" || machine.kind === "hand";
  return (
    <div className="mt-2 rounded border border-rule bg-sheet p-2.5" role="group" aria-label={machine.name}>
      <div className="grid grid-cols-[repeat(4,minmax(0,1fr))_24px] items-end gap-1.5">
        <div className="col-span-4">
          <TextField label="Machine" value={machine.name} needed onCommit={(name) => set({ name })} />
        </div>
        <TakeAway
          what={machine.name}
          onTake={() => send({ do: "remove_from_workshop", kind: "machines", id: machine.id })}
        />
        <LengthField
          label="Bed, width"
          value={machine.bed_width}
          least={1}
          onCommit={(bed_width) => set({ bed_width })}
        />
        <LengthField
          label="Height"
          value={machine.bed_height}
          least={1}
          onCommit={(bed_height) => set({ bed_height })}
        />
        <LengthField label="Margin" value={machine.margin} onCommit={(margin) => set({ margin })} />
        <LengthField
          label="Thickest"
          value={machine.depth}
          least={0.1}
          onCommit={(depth) => set({ depth })}
        />
      </div>
      <div className="mt-2 flex flex-wrap items-end gap-3">
        {machine.kind === "laser" && (
          <span className="w-24">
            <LengthField label="Kerf" value={machine.kerf} onCommit={(kerf) => set({ kerf })} />
          </span>
        )}
        {machine.kind === "laser" && (
          <span className="w-24">
            <FigureField
              label="Power"
              unit="W"
              value={machine.watts ?? 0}
              most={10000}
              onCommit={(watts) => set({ watts })}
            />
          </span>
        )}
        {machine.kind === "mill" && (
          <span className="w-40">
            <ChoiceField
              label="Square corners"
              value={machine.bones ? "bones" : "round"}
              options={
                [
                  ["round", "stay round"],
                  ["bones", "are gone into"],
                ] as const
              }
              onCommit={(how) => set({ bones: how === "bones" })}
            />
          </span>
        )}
        {machine.kind === "mill" && (
          <span className="w-40">
            <ChoiceField
              label="Goes round"
              value={machine.climb === false ? "against" : "climb"}
              options={
                [
                  ["climb", "climb: teeth bite in"],
                  ["against", "against: machines with play"],
                ] as const
              }
              onCommit={(way) => set({ climb: way === "climb" })}
            />
          </span>
        )}
        {(machine.kind === "laser" || machine.kind === "mill") && (
          <>
            <span className="w-28">
              <FigureField
                label="Fastest"
                unit="mm/min"
                value={machine.feed ?? 0}
                least={10}
                most={100000}
                onCommit={(feed) => set({ feed })}
              />
            </span>
            <span className="w-28">
              <FigureField
                label="Acceleration"
                unit="mm/s²"
                value={machine.acceleration ?? 0}
                least={1}
                most={100000}
                onCommit={(acceleration) => set({ acceleration })}
              />
            </span>
          </>
        )}
        {machine.kind === "mill" && (
          <span className="w-24">
            <FigureField
              label="Spindle"
              unit="rpm"
              whole
              value={machine.spindle_rpm}
              most={200000}
              onCommit={(spindle_rpm) => set({ spindle_rpm })}
            />
          </span>
        )}
        {bladed && (
          <span className="w-52">
            <TextField
              label={machine.kind === "mill" ? "Cutters: mm × flutes, tip°/flat" : "Drills, mm"}
              value={machine.tools.map((t) => toolWord(t, machine.kind)).join(", ")}
              hint={machine.kind === "mill" ? "3.175×1, 30°/0.1, drill 3" : "3, 3.5, 6.5, 12"}
              onCommit={async (text) => set({ tools: await toolsIn(text) })}
            />
          </span>
        )}
      </div>
      {(machine.kind === "laser" || machine.kind === "mill") && (
        <label className="mt-2 flex items-center gap-2 text-[12px]">
          <input
            type="checkbox"
            className="accent-petrol"
            checked={machine.offsets ?? false}
            onChange={(event) => set({ offsets: event.target.checked })}
          />
          its own software moves the line by the kerf: files keep the drawn edge
        </label>
      )}
      <Beds beds={beds} view={view} />
    </div>
  );
}

/** A tool as it is written in the list: an end mill, a pointed engraver, or a drill. */
function toolWord(tool: NonNullable<Machine["tools"]>[number], kind: Machine["kind"]): string {
  if (tool.kind === "engraver") return `${tool.angle}°/${tool.flat}`;
  if (tool.kind === "drill") return `drill ${tool.diameter}`;
  return kind === "mill" ? `${tool.diameter}×${tool.flutes}` : String(tool.diameter);
}

/** Reads “1/8in×2, 30°/0.1, drill 3”: the core does; it throws with the word that names no tool. */
const toolsIn = (text: string): Promise<Machine["tools"]> =>
  answered(api.GET("/api/quantity/tools", { params: { query: { text } } }));
