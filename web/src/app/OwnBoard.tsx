/** A board of one's own: its pins typed or pasted, a line a pin or a run of them, read as one types. */
import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useRef, useState } from "react";
import { answered, api } from "../api/client";
import type { OwnBoard } from "../api/types";
import { Button } from "../ui/Button";
import { ChoiceField, FigureField, TextField, understood } from "../ui/fields";
import { many } from "../ui/figures";
import { Sheet } from "../ui/Sheet";
import { useChanges, useDesign } from "./design";

const EXAMPLE = `P1-P8 io up int
P9-P12 io up pwm
X0-X3 io up adc
SDA io up sda
SCL io up scl
IN1-IN4 in`;

const NEW = "";
const BLANK = { id: "", name: "", volts: 5, bits: 10, width: 60, height: 40, pins: [] } satisfies OwnBoard;

export function OwnBoardDialog({ onClose }: { onClose: () => void }) {
  const { id, design } = useDesign();
  const { send } = useChanges(id);
  const form = useRef<HTMLFormElement>(null);
  const [which, setWhich] = useState(NEW);
  const [board, setBoard] = useState<OwnBoard>(BLANK);
  const [text, setText] = useState("");
  const read = useQuery({
    queryKey: ["board text", id, text],
    queryFn: () => readText(id, text),
    enabled: text.trim() !== "",
    placeholderData: (before) => before,
  });
  const pins = text.trim() === "" ? [] : (read.data?.pins ?? []);
  const wrong = text.trim() === "" ? [] : (read.data?.wrong ?? []);
  const taken = new Set([...design.boards.map((own) => own.id), ...design.controllers.map((c) => c.id)]);
  const choose = (ident: string) => {
    const own = design.boards.find((one) => one.id === ident);
    setWhich(ident);
    setBoard(own ?? BLANK);
    setText(own ? own.pins.map((pin) => `${pin.name} ${pin.roles.join(" ")}`).join("\n") : "");
  };
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (!(await understood(form.current))) return;
    const fresh = await readText(id, text); // what was typed last may not have been read yet
    if (fresh.wrong.length > 0 || fresh.pins.length === 0) return;
    void send([
      { do: "set_board", board: { ...board, id: which || identOf(board.name, taken), pins: fresh.pins } },
    ]);
    onClose();
  };
  const users = design.controllers.filter((c) => c.board === which).length;
  const set = (changes: Partial<OwnBoard>) => setBoard((now) => ({ ...now, ...changes }));
  return (
    <Sheet title="A board of your own" open onClose={onClose}>
      <form ref={form} className="flex flex-col gap-3 text-[12px]" onSubmit={(event) => void submit(event)}>
        {design.boards.length > 0 && (
          <ChoiceField
            label="Which"
            value={which}
            options={[[NEW, "a new one"], ...design.boards.map((own) => [own.id, own.name] as const)]}
            onCommit={choose}
          />
        )}
        <TextField
          key={`name ${which}`}
          label="Name"
          needed
          value={board.name}
          onCommit={(name) => set({ name })}
        />
        <div className="grid grid-cols-3 gap-2">
          <FigureField
            key={`volts ${which}`}
            label="Logic"
            unit="V"
            value={board.volts}
            least={1.8}
            most={5.5}
            onCommit={(volts) => set({ volts })}
          />
          <FigureField
            key={`pin ${which}`}
            label="Most through a pin"
            unit="mA"
            hint="as an AVR"
            value={board.pin_current == null ? null : board.pin_current * 1000}
            least={0.1}
            most={1000}
            onEmpty={() => set({ pin_current: null })}
            onCommit={(amps) => set({ pin_current: amps / 1000 })}
          />
          <FigureField
            key={`chip ${which}`}
            label="Through all pins"
            unit="mA"
            hint="as an AVR"
            value={board.chip_current == null ? null : board.chip_current * 1000}
            least={0.1}
            most={10000}
            onEmpty={() => set({ chip_current: null })}
            onCommit={(amps) => set({ chip_current: amps / 1000 })}
          />
        </div>
        <label className="block">
          <span className="text-faint">
            Its pins in the order in which they lie, one side after the other: a name or a run of them, and
            what they can do
          </span>
          <textarea
            className="num mt-1 h-44 w-full rounded border border-faint bg-sheet p-2 leading-[18px]"
            placeholder={EXAMPLE}
            value={text}
            spellCheck={false}
            aria-invalid={wrong.length > 0}
            aria-describedby="board-read"
            onChange={(event) => setText(event.target.value)}
          />
        </label>
        <div id="board-read" aria-live="polite">
          {wrong.slice(0, 4).map((line) => (
            <p key={line.line} className="text-must">
              Line {line.line}: {line.why}
            </p>
          ))}
          {wrong.length === 0 && pins.length > 0 && (
            <p>
              {many(pins.length, "pin")}; {pins.filter((pin) => pin.roles.includes("adc")).length} measure,{" "}
              {pins.filter((pin) => pin.roles.includes("pwm")).length} dim
            </p>
          )}
          <p className="text-[11px] text-faint">
            io reads and drives, in and out only one of them; up: a pull-up of its own; adc measures; pwm
            dims; int: interrupt; sda scl sck mosi miso; strap: read at power-up; flashes at reset; coder.
            Leave out what is taken by the flash or the USB line.
          </p>
        </div>
        <div className="flex items-center gap-2">
          <Button look="solid" type="submit" disabled={wrong.length > 0 || pins.length === 0}>
            {which ? "Change it" : "Keep it"}
          </Button>
          <Button onClick={onClose}>Cancel</Button>
          {which && (
            <>
              <span className="flex-1" />
              <Button
                onClick={() => {
                  void send([{ do: "remove_board", board: which }]);
                  onClose();
                }}
              >
                {users > 0 ? `Forget it, with ${many(users, "controller")}` : "Forget it"}
              </Button>
            </>
          )}
        </div>
      </form>
    </Sheet>
  );
}

const readText = (id: string, text: string) =>
  answered(
    api.POST("/api/designs/{design_id}/wire/board-text", {
      params: { path: { design_id: id } },
      body: { text },
    }),
  );

/** A short name for the record that no other board or controller has. */
function identOf(name: string, taken: ReadonlySet<string>): string {
  const plain = name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-+|-+$/g, "")
    .slice(0, 30);
  const base = /^[a-z]/.test(plain) ? plain : `board-${plain}`.replace(/-$/, "");
  for (let n = 1; ; n += 1) {
    const ident = n === 1 ? base : `${base}-${n}`;
    if (!taken.has(ident) && !RESERVED.test(ident)) return ident;
  }
}

/** Kinds that come with the program have such names. */
const RESERVED = /^(atmega|esp32|rp2040|hid-)/;
