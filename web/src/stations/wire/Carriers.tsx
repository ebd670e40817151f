/** The ways to switch one function's load, compared on this very panel, and how a controller sees whether it is on. */
import { useQuery } from "@tanstack/react-query";
import { answered, api } from "../../api/client";
import type { CarrierOption, Fn, SeenOption } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { shown } from "../../ui/figures";
import { money } from "../../ui/money";

const WORDS: Record<CarrierOption["through"], string> = {
  "": "its own contact",
  relay: "a relay",
  contactor: "a contactor",
  transistor: "a transistor",
};

const SEEN: Record<SeenOption["seen"], string> = {
  "": "not at all",
  pole: "a second pole of the control",
  auxiliary: "an auxiliary contact of what carries it",
  divider: "a divider from its volts",
};

const words = (option: CarrierOption) =>
  option.driven === "controller" ? `${WORDS[option.through]}, driven by a pin` : WORDS[option.through];

/** What a way bears, takes and how fast it is, in words. */
function figures(way: CarrierOption): string {
  const figure = (value: number) => `${Number(value.toPrecision(3))}`;
  return [
    way.amps ? `bears ${figure(way.amps)} A at ${figure(way.volts)} V` : "what it bears is not said",
    ...(way.coil ? [`coil ${figure(way.coil * 1000)} mA`] : []),
    ...(way.heat ? [`${figure(way.lost)} V lost, ${figure(way.heat)} W of heat`] : []),
    way.acts ? `acts in ${figure(way.acts)} ms` : "acts at once",
  ].join("; ");
}

export function Carriers({ fn }: { fn: Fn }) {
  const { id, revision, design } = useDesign();
  const { send } = useChanges(id);
  const found = useQuery({
    queryKey: ["carriers", id, revision, fn.id],
    queryFn: () =>
      answered(
        api.GET("/api/designs/{design_id}/wire/carriers", {
          params: { path: { design_id: id }, query: { function: fn.id } },
        }),
      ),
    placeholderData: (before) => before,
  });
  const { ways = [], seen = [], load = "" } = found.data ?? {};
  // What is still shown of an older revision is not taken up.
  const take = (option: CarrierOption | SeenOption) =>
    found.isPlaceholderData ? undefined : () => void send(option.commands);
  const cannot = ways.filter((way) => way.not_for && !way.now);
  if (found.data && fn.switches.volts === 0)
    return (
      <p className="mb-2 text-[12px] text-judge">
        Say at Brief how many volts its load has: its wires cannot be listed without.
      </p>
    );
  if (ways.length === 0) return null;
  return (
    <section aria-label="How its load is switched" className="mb-3 text-[12px]">
      <h3 className="font-semibold">
        How its load is switched: <span className="num">{load}</span>
      </h3>
      <table className="mt-1 w-full border-collapse text-left">
        <thead>
          <tr className="text-[11px] text-faint">
            <th className="py-0.5 font-normal">by</th>
            {["pins", "wires", "joints", "parts", design.brief.currency, "minutes"].map((head) => (
              <th key={head} className="py-0.5 pl-3 text-right font-normal whitespace-nowrap">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {ways
            .filter((way) => !way.not_for || way.now)
            .map((way) => (
              <CarrierRow key={words(way)} way={way} onTake={take(way)} />
            ))}
        </tbody>
      </table>
      {cannot.length > 0 && (
        <p className="mt-1 text-[11px] text-faint">
          Not {cannot.map((way) => `${words(way)} (${way.not_for})`).join("; not ")}.
        </p>
      )}
      <fieldset className="mt-2">
        <legend className="text-[11px] text-faint">A controller sees whether it is on by</legend>
        {seen.map((way) => (
          <label
            key={way.seen}
            className={`flex items-baseline gap-2 py-0.5 ${way.not_for && !way.now ? "text-faint" : ""}`}
          >
            <input
              type="radio"
              name={`seen-${fn.id}`}
              checked={way.now}
              disabled={!way.now && (way.not_for !== "" || found.isPlaceholderData)}
              onChange={take(way)}
            />
            <span>
              {SEEN[way.seen]}
              {way.not_for && <span className={way.now ? "text-must" : ""}>: {way.not_for}</span>}
            </span>
          </label>
        ))}
      </fieldset>
    </section>
  );
}

function CarrierRow({ way, onTake }: { way: CarrierOption; onTake: (() => void) | undefined }) {
  const said = way.not_for ? [way.not_for] : way.loses;
  return (
    <tr className={`border-t border-rule align-top ${way.now ? "bg-wash" : ""}`}>
      <td className="py-0.5 pr-2">
        <button
          type="button"
          className="flex gap-2 text-left enabled:hover:underline"
          disabled={way.now || !onTake}
          onClick={onTake}
        >
          <span
            aria-hidden="true"
            className={`mt-1 size-2.5 shrink-0 rounded-full border border-petrol ${way.now ? "bg-petrol" : ""}`}
          />
          <span>
            {words(way)}
            {way.now && <span className="sr-only">, as it is</span>}
            {!way.not_for && <span className="block text-[11px]/[14px] text-faint">{figures(way)}</span>}
            {said.length > 0 && (
              <span className={`block text-[11px]/[14px] ${way.not_for ? "text-must" : "text-judge"}`}>
                {said.join("; ")}
              </span>
            )}
          </span>
        </button>
      </td>
      {way.not_for ? (
        <td colSpan={6} />
      ) : (
        [way.pins, way.wires, way.joints, way.small, money(way.money), shown(way.minutes, 0)].map(
          (value, n) => (
            <td key={n} className="num py-0.5 pl-3 text-right whitespace-nowrap">
              {value}
            </td>
          ),
        )
      )}
    </tr>
  );
}
