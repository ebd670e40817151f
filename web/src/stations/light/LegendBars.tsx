/** Every legend with its least light over the mean as a bar; the limit is marked, the worst first. */
import type { LightView } from "../../api/types";
import { useSession } from "../../app/session";
import { Button } from "../../ui/Button";
import { shown } from "../../ui/figures";
import { Awaited } from "../../ui/NotThere";
import { EvenBar } from "./EvenBar";
import type { Laying } from "./useLaying";

interface Props {
  light: LightView;
  laying: Laying;
}

export function LegendBars({ light, laying }: Props) {
  const { selection, select } = useSession();
  const night = light.night;
  if (!night) return <Nothing light={light} laying={laying} />;
  const rows = [...night.legends].sort((a, b) => a.evenness - b.evenness);
  return (
    <>
      <p className="flex justify-between gap-2 px-3.5 py-1.5 text-[11px] text-faint">
        <span>least / mean light of its letters</span>
        <span className="num">{shown(light.even, 2)} wanted</span>
      </p>
      <ul>
        {rows.map((legend) => {
          const tone = legend.standing;
          const dark = legend.dark.map((word) => word || "its marks").join(", ");
          return (
            <li key={legend.function}>
              <button
                type="button"
                aria-pressed={selection.includes(legend.function)}
                data-legend={legend.function}
                title={dark ? `Dark: ${dark}` : undefined}
                className={`grid w-full grid-cols-[minmax(0,1fr)_56px_34px] items-center gap-x-2 border-t border-rule px-3.5 py-1.5 text-left hover:bg-wash ${selection.includes(legend.function) ? "bg-wash" : ""}`}
                onClick={() => select([legend.function])}
              >
                <span className="truncate">{legend.name}</span>
                <EvenBar share={legend.evenness} limit={light.even} tone={tone} />
                <span className={`num text-right text-${tone}`}>{shown(legend.evenness, 2)}</span>
                <span className="num col-span-3 text-[11px] text-faint">
                  {shown(legend.least, 0)} to {shown(legend.mean, 0)} cd/m²
                </span>
              </button>
            </li>
          );
        })}
      </ul>
    </>
  );
}

/** Why there are no figures yet, and what to do about it. */
function Nothing({ light, laying }: Props) {
  const lamps = light.light.strips.length + light.light.leds.length;
  const stops = light.way.filter((layer) => layer.opacity === "opaque");
  if (!light.lit)
    return (
      <p className="p-3.5 text-faint">
        {stops.length > 0
          ? `${stops.map((layer) => layer.name).join(" and ")} of this module lets no light through. Make it clear at Stack, and its legends can be lit.`
          : "This module is one opaque sheet: its legends cannot be lit from behind. Another way of building it is chosen at Stack."}
      </p>
    );
  if (lamps > 0) return <Awaited words="The light is being worked out…" className="p-3.5" />;
  return (
    <div className="space-y-3 p-3.5">
      <p className="text-faint">
        Nothing lights this module from behind yet. Have strips laid between its bodies, or lay them yourself.
      </p>
      <Ways laying={laying} />
    </div>
  );
}

/** The two ways in which lamps can be looked for. */
export function Ways({ laying }: { laying: Laying }) {
  const busy = laying.job.standing !== null;
  return (
    <div className="flex flex-wrap gap-2">
      <Button look="solid" disabled={busy} onClick={() => void laying.suggest("rows")}>
        Suggest strips in rows
      </Button>
      <Button disabled={busy} onClick={() => void laying.suggest("edge")}>
        Suggest strips round the edge, at 45°
      </Button>
    </div>
  );
}
