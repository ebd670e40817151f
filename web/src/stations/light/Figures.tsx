/** Below: what the light of the module takes, how far it is dimmed, and what was suggested. */
import type { LightView } from "../../api/types";
import { useDesign } from "../../app/design";
import { LOST } from "../../panel/lost";
import { Button } from "../../ui/Button";
import { ChoiceField, FigureField } from "../../ui/fields";
import { many, shown } from "../../ui/figures";
import { money } from "../../ui/money";
import { Ways } from "./LegendBars";
import { useLightState, testLamps } from "./store";
import type { Laying } from "./useLaying";

interface Props {
  light: LightView;
  laying: Laying;
}

export function Figures({ light, laying }: Props) {
  const { design } = useDesign();
  const { level, lit, set } = useLightState();
  const lamps = light.light.strips.length + light.light.leds.length;
  const now = level ?? light.light.level;
  if (laying.suggested) return <Suggestion light={light} laying={laying} />;
  if (lamps === 0) return null;
  const cut = light.runs.reduce((sum, run) => sum + run.cut, 0);
  const leds = light.runs.reduce((sum, run) => sum + run.leds, 0);
  return (
    <div className="flex flex-wrap gap-x-6 gap-y-1.5 border-t border-rule bg-card px-4 py-2 text-[12px]">
      <section aria-label="Strips and LEDs" className="min-w-0 max-w-60 flex-1 basis-36">
        <h3 className="text-[12px]">Strips and LEDs</h3>
        <p className="num whitespace-normal text-faint">
          {many(light.runs.length, "strip")}, {shown(cut, 0)} mm, {many(leds, "LED")}
        </p>
        <p className="num whitespace-normal text-faint">
          {many(light.light.leds.length, "single LED")}, {money(light.price, design.brief.currency)} about
        </p>
      </section>
      <section aria-label="Supply and dimmer" className="min-w-0 max-w-60 flex-1 basis-36">
        <h3 className="text-[12px]">Supply and dimmer</h3>
        {light.loads.map((load) => (
          <p key={load.volts} className="num whitespace-normal text-faint">
            {shown(load.volts, 0)} V, {shown(load.amps, 2)} A, {shown(load.volts * load.amps)} W
          </p>
        ))}
        {light.resistors.length > 0 && (
          <p className="num whitespace-normal text-faint" title={resistors(light)}>
            {resistors(light)}
          </p>
        )}
      </section>
      <section aria-label="Dimmed" className="min-w-44">
        <label className="block font-semibold" htmlFor="level">
          Dimmed to <span className="num">{Math.round(now * 100)} %</span>
        </label>
        <input
          id="level"
          type="range"
          min={2}
          max={100}
          step={2}
          value={Math.round(now * 100)}
          className="w-44 accent-petrol"
          onChange={(event) => set({ level: Number(event.target.value) / 100 })}
          onPointerUp={() => level !== null && laying.dim(level)}
          onKeyUp={() => level !== null && laying.dim(level)}
          onBlur={() => level !== null && laying.dim(level)}
        />
        <label className="mt-1 flex items-center gap-2">
          <input
            type="checkbox"
            checked={light.light.dimmer}
            onChange={() => laying.dimmer(!light.light.dimmer)}
          />
          a controller’s pin dims it
        </label>
      </section>
      {(light.light.dimmer || light.light.strips.some((strip) => strip.kind.startsWith("chain"))) && (
        <section aria-label="With a controller" className="grid w-80 grid-cols-2 items-end gap-2">
          <FigureField
            label="At power-up, of 255"
            whole
            value={light.light.boot}
            least={0}
            most={255}
            onCommit={(boot) => laying.unhosted({ boot })}
          />
          <ChoiceField
            label="Without a host"
            value={light.light.lost}
            options={LOST}
            onCommit={(lost) => laying.unhosted({ lost })}
          />
        </section>
      )}
      <div className="ml-auto flex flex-wrap items-center gap-2">
        <Button keys="O" aria-pressed={lit === "all"} onClick={testLamps}>
          {lit === "all" ? "Lamps out" : "Lamp test"}
        </Button>
        {light.night && light.night.legends.some((l) => l.standing !== "ok") && (
          <Button
            look="solid"
            disabled={laying.job.standing !== null}
            onClick={() => void laying.suggest("rows")}
          >
            Suggest LEDs
          </Button>
        )}
      </div>
    </div>
  );
}

const resistors = (light: LightView) =>
  light.resistors.map((one) => `${one.many} × ${shown(one.ohms, 0)} Ω`).join(", ");

/** What would be laid, and how each legend would read with it. */
function Suggestion({ light, laying }: Props) {
  const found = laying.suggested;
  if (!found) return null;
  const strips = found.commands.filter((c) => c.do === "add_strip").length;
  const leds = found.commands.reduce((sum, c) => sum + (c.do === "add_leds" ? (c.at?.length ?? 1) : 0), 0);
  return (
    <section
      aria-label="Suggested"
      className="flex flex-wrap items-center gap-x-6 gap-y-2 border-t border-rule bg-warm px-4 py-2.5 text-[12px]"
    >
      <p>
        <b>
          {[strips > 0 && many(strips, "strip"), leds > 0 && many(leds, "LED")].filter(Boolean).join(" and ")}
        </b>{" "}
        make {many(found.better, "legend")} of {found.legends.length} even
        {found.left > 0 ? `; ${found.left} stay uneven: bodies lie right behind their words` : ""}
      </p>
      <div className="ml-auto flex gap-2">
        <Button look="solid" onClick={laying.take}>
          Lay them
        </Button>
        <Button onClick={laying.leave}>Leave it</Button>
        {light.light.strips.length + light.light.leds.length === 0 && <Ways laying={laying} />}
      </div>
    </section>
  );
}
