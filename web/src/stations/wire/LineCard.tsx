/** One function's lines, end to end in words, and the way to everything else that is known of it. */
import { editFunction } from "../../api/commands";
import type { Fn, Row } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { useGo } from "../../app/place";
import { useSession } from "../../app/session";
import type { Station } from "../../app/stations";
import { LOST } from "../../panel/lost";
import { ChoiceField, FigureField } from "../../ui/fields";

interface Props {
  fn: Fn;
  rows: readonly Row[];
  /** The line that is picked, if it is one of these. */
  picked: string | null;
  onPick: (line: string) => void;
  /** Show the wires of a function, with the tests of their groups. */
  onTest: (words: string) => void;
}

const PLACES: readonly (readonly [Station["id"], string])[] = [
  ["brief", "what it is for"],
  ["parts", "its part"],
  ["face", "its place and legend"],
  ["cut", "its cut-out"],
];

const TESTS = [
  ["", "no, it is reported only"],
  ["program", "those of its board, by its program"],
  ["wired", "all by wires, over two diodes at each"],
] as const;

const reserve = (controller: string, reserved: string | null) =>
  ({ do: "edit_controller", controller, reserved }) as const;

export function LineCard({ fn, rows, picked, onPick, onTest }: Props) {
  const { id, design } = useDesign();
  const { send } = useChanges(id);
  const part = design.parts.find((one) => one.id === fn.part);
  const board = design.controllers.find((one) => one.reserved === fn.id);
  const switches =
    fn.tests_lamps || part?.lines.some((line) => line.does === "switch" && !line.each_position);
  const lamps =
    part?.lines.filter((line) => line.does === "lamp" || (line.id === "data" && part.lines.length === 1)) ??
    [];
  const go = useGo(id);
  const visit = (station: Station["id"]) => {
    useSession.getState().select([fn.id]);
    go(station);
  };
  return (
    <section aria-label={`Lines of ${fn.name}`} className="min-h-0 overflow-y-auto px-4 py-2 text-[12px]">
      <h3 className="truncate font-semibold">{fn.name}</h3>
      <p className="flex flex-wrap gap-x-3 text-[11px]">
        {PLACES.map(([station, words]) => (
          <button
            key={station}
            type="button"
            className="text-petrol underline"
            onClick={() => visit(station)}
          >
            {words}
          </button>
        ))}
        <button type="button" className="text-petrol underline" onClick={() => onTest(fn.name)}>
          its wires and their tests
        </button>
      </p>
      {switches && (
        <div className="mt-1 max-w-80">
          <ChoiceField
            label="While its contact is closed, every lamp is lit"
            value={fn.tests_lamps ? "wired" : fn.tests_by_program ? "program" : ""}
            options={TESTS}
            onCommit={(by) =>
              void send([
                editFunction(fn.id, { tests_lamps: by === "wired", tests_by_program: by === "program" }),
              ])
            }
          />
        </div>
      )}
      {part?.plugs_on && (
        <div className="mt-1 max-w-60">
          <ChoiceField
            label="Plugged onto, and takes all its pins"
            value={board?.id ?? ""}
            options={[
              ["", "no board yet"],
              ...design.controllers
                .filter((c) => !c.reserved || c === board)
                .map((c) => [c.id, c.name] as const),
            ]}
            onCommit={(controller) =>
              void send([
                ...(board ? [reserve(board.id, null)] : []),
                ...(controller ? [reserve(controller, fn.id)] : []),
              ])
            }
          />
        </div>
      )}
      {lamps.map((lamp) => {
        const alone = lamps.length === 1;
        const said = fn.declared.find((one) => one.line === lamp.id);
        const now = { line: lamp.id, boot: said?.boot ?? fn.boot, lost: said?.lost ?? fn.lost };
        const declare = (state: Partial<typeof now>) => {
          const others = lamps.filter((other) => other !== lamp).map((other) => other.id);
          const declared = [...fn.declared.filter((one) => others.includes(one.line)), { ...now, ...state }];
          void send([editFunction(fn.id, alone ? state : { declared })]);
        };
        return (
          <div key={lamp.id} className="mt-1 grid max-w-80 grid-cols-2 gap-2">
            <FigureField
              label={`${alone ? "At power-up" : `${lamp.id} at power-up`}, 0 to 255`}
              whole
              value={now.boot}
              least={0}
              most={255}
              onCommit={(boot) => declare({ boot })}
            />
            <ChoiceField
              label={alone ? "While no host answers" : `${lamp.id} without a host`}
              value={now.lost}
              options={LOST}
              onCommit={(lost) => declare({ lost })}
            />
          </div>
        );
      })}
      <ul className="mt-1">
        {rows.map((row) => (
          <li key={row.line} className={`border-t border-rule ${picked === row.line ? "bg-wash" : ""}`}>
            <button
              type="button"
              className="flex w-full flex-wrap items-baseline gap-x-2 py-0.5 text-left hover:underline"
              aria-pressed={picked === row.line}
              onClick={() => onPick(row.line)}
            >
              <span className="num min-w-14 max-w-full shrink-0 truncate">{row.terminal}</span>
              <span className={`num shrink-0 ${row.pin ? "" : "text-judge"}`}>
                {row.pin ? `${row.board}, ${row.via ? "" : "pin "}${row.pin}` : "no pin yet"}
              </span>
              <span className="min-w-0 text-faint">{row.note}</span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
