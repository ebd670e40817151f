/** What lamps an own part has: LEDs that want a resistor, lamps made for a supply, bulbs; where they light a caption from. */
import type { Part } from "../../api/types";
import { ChoiceField, FigureField } from "../../ui/fields";
import type { Edit } from "./edit";

const KINDS = [
  ["led", "LED"],
  ["own", "pre-wired"],
  ["bulb", "bulb"],
] as const;
const SIDES = [
  ["behind", "behind"],
  ["side", "at ends"],
] as const;

export function OwnLamp({ part, edit }: { part: Part; edit: (changes: Edit) => void }) {
  const lamp = part.lines.find((line) => line.does === "lamp");
  if (!lamp) return null;
  return (
    <>
      <ChoiceField
        label="Lamp"
        value={lamp.bulb ? "bulb" : lamp.volts > 0 ? "own" : "led"}
        options={KINDS}
        onCommit={(kind) => edit({ lamp: kind })}
      />
      <FigureField
        label="Lamp takes"
        unit="mA"
        value={Math.round(lamp.current * 1e5) / 100}
        least={0.1}
        most={10000}
        onCommit={(milliamps) => edit({ lamp_amps: milliamps / 1000 })}
      />
      {lamp.volts > 0 && (
        <FigureField
          label="Made for"
          unit="V"
          value={lamp.volts}
          least={0.5}
          most={400}
          onCommit={(lamp_volts) => edit({ lamp_volts })}
        />
      )}
      {part.family === "caption" && (
        <ChoiceField label="Lit" value={part.lit} options={SIDES} onCommit={(lit) => edit({ lit })} />
      )}
    </>
  );
}
