/** The lamps of the functions: supply, colour, resistor to buy, and what all of them take at once. */
import { useSession } from "../../app/session";
import { NotThere } from "../../ui/NotThere";
import { many, shown } from "../../ui/figures";
import type { LampsView } from "../../api/types";
import { LitButton } from "./LitButton";
import { Screens } from "./Screens";
import { Trials } from "./Trials";
import { useLamps } from "./useLight";

export function LampTable() {
  const lamps = useLamps();
  const { selection, select } = useSession();
  if (!lamps.data) return <NotThere query={lamps} words="Counting the lamps…" className="p-3.5" />;
  const { lamps: rows, loads, screens } = lamps.data;
  if (rows.length === 0 && screens.length === 0)
    return <p className="p-3.5 text-faint">No function has a lamp yet. They are chosen at Parts.</p>;
  return (
    <>
      <p className="px-3.5 py-1.5 text-[11px] text-faint">
        All at once:{" "}
        {loads.map((load) => (
          <span key={load.volts} className="num mr-2">
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
              <span className={`block text-[11px] ${lamp.ohms === null ? "text-judge" : "text-faint"}`}>
                {lamp.ohms !== null && (
                  <span className="num">
                    {shown(lamp.supply, 0)} V, {shown(lamp.drop)} V, {shown(lamp.amps * 1000, 0)} mA:{" "}
                  </span>
                )}
                {lamp.said}
              </span>
            </button>
            <LitButton of={`${lamp.function} ${lamp.line}`} name={named(lamp, rows)} />
          </li>
        ))}
      </ul>
      {screens.length > 0 && <Screens screens={screens} />}
      <Trials />
      <p className="px-3.5 py-2 text-[11px] text-faint">
        The longer leg of an LED is its plus. Forward voltages are usual ones: try one of each colour first.
      </p>
    </>
  );
}

type Lamp = LampsView["lamps"][number];

/** A lamp's name; with its terminal where its function has several. */
const named = (lamp: Lamp, all: readonly Lamp[]): string =>
  all.filter((one) => one.function === lamp.function).length > 1
    ? `${lamp.name}, ${lamp.terminal}`
    : lamp.name;
