/** The lamps of the functions: supply, colour, resistor to buy, and what all of them take at once. */
import { editFunction } from "../../api/commands";
import { useChanges, useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { ChoiceField } from "../../ui/fields";
import { NotThere } from "../../ui/NotThere";
import { many, shown } from "../../ui/figures";
import type { LampsView } from "../../api/types";
import { Boxes } from "./Boxes";
import { LitButton } from "./LitButton";
import { Screens } from "./Screens";
import { Trials } from "./Trials";
import { useLamps } from "./useLight";

export function LampTable() {
  const lamps = useLamps();
  const { selection, select } = useSession();
  if (!lamps.data) return <NotThere query={lamps} words="Counting the lamps…" className="p-3.5" />;
  const { lamps: rows, loads, screens, boxes, box_even } = lamps.data;
  if (rows.length === 0 && screens.length === 0)
    return <p className="p-3.5 text-faint">No function has a lamp yet. They are chosen at Parts.</p>;
  return (
    <>
      <p className="px-3.5 py-1.5 text-[11px] text-faint">
        All at once:{" "}
        {loads.map((load) => (
          <span key={load.volts} className="num mr-2 inline-block">
            {many(load.leds, "lamp")} on {shown(load.volts, 0)} V, {shown(load.amps, 2)} A
          </span>
        ))}
      </p>
      <ul>
        {rows.map((lamp) => (
          <li
            key={`${lamp.function} ${lamp.line}`}
            className={`flex items-center border-t border-rule pr-2 hover:bg-wash ${selection.includes(lamp.function) ? "bg-wash" : ""}`}
          >
            <button
              type="button"
              aria-pressed={selection.includes(lamp.function)}
              className="min-w-0 flex-1 py-1.5 pl-3.5 text-left"
              onClick={() => select([lamp.function])}
            >
              <span className="flex justify-between gap-2">
                <span className="truncate">{named(lamp, rows)}</span>
                <span className="shrink-0 text-[11px] text-faint">
                  {lamp.colour}
                  {lamp.states > 2 ? `, ${lamp.states} states` : ""}
                </span>
              </span>
              <span
                className={`block text-[11px] ${lamp.ohms === null && !lamp.made_for ? "text-judge" : "text-faint"}`}
              >
                {lamp.made_for > 0 && (
                  <span className="num whitespace-normal">
                    {shown(lamp.supply, 0)} V, {shown(lamp.amps * 1000, 0)} mA:{" "}
                  </span>
                )}
                {lamp.ohms !== null && (
                  <span className="num whitespace-normal">
                    {shown(lamp.supply, 0)} V, {shown(lamp.drop)} V, {shown(lamp.amps * 1000, 0)} mA:{" "}
                  </span>
                )}
                {lamp.said}
              </span>
            </button>
            {lamp.had_bulb && <InItsHolder lamp={lamp} />}
            <LitButton of={`${lamp.function} ${lamp.line}`} name={named(lamp, rows)} />
          </li>
        ))}
      </ul>
      {boxes.length > 0 && <Boxes boxes={boxes} even={box_even} />}
      {screens.length > 0 && <Screens screens={screens} />}
      <Trials />
      <p className="px-3.5 py-2 text-[11px] text-faint">
        The longer leg of an LED is its plus. Forward voltages are usual ones: try one of each colour first.
      </p>
    </>
  );
}

/** Whether a bulb or an LED stands in a lamp's holder; an LED is for the supply that the bulb had. */
function InItsHolder({ lamp }: { lamp: Lamp }) {
  const { id } = useDesign();
  const { send } = useChanges(id);
  return (
    <ChoiceField
      bare
      label={`In the holder of ${lamp.name}`}
      value={lamp.bulb ? "bulb" : "led"}
      options={[
        ["bulb", "bulb"],
        ["led", "LED"],
      ]}
      onCommit={(kind) =>
        void send([
          editFunction(lamp.function, kind === "led" ? { led: true, volts: lamp.supply } : { led: false }),
        ])
      }
    />
  );
}

type Lamp = LampsView["lamps"][number];

/** A lamp's name; with its terminal where its function has several. */
const named = (lamp: Lamp, all: readonly Lamp[]): string =>
  all.filter((one) => one.function === lamp.function).length > 1
    ? `${lamp.name}, ${lamp.terminal}`
    : lamp.name;
