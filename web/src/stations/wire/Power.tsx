/** Power as a tree: from the mains and the USB port on the left to every load on the right, in the state that is chosen. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answered, api } from "../../api/client";
import type { PowerView } from "../../api/types";
import { useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { NotThere } from "../../ui/NotThere";
import { Tabs } from "../../ui/Tabs";
import { PowerCard } from "./PowerCard";
import { amps, spotsOf, type PowerNode, type Spot } from "./powerTree";
import { UsbCard } from "./UsbCard";

const COLUMN = 204;
const WIDE = 172;
const ROW = 54;
const HIGH = 44;
type State = PowerView["states"][number]["state"];

export function Power() {
  const { id, revision } = useDesign();
  const [state, setState] = useState<State>("all");
  const [chosen, setChosen] = useState<string | null>(null);
  const found = useQuery({
    queryKey: ["power", id, revision],
    queryFn: () =>
      answered(api.GET("/api/designs/{design_id}/wire/power", { params: { path: { design_id: id } } })),
    placeholderData: (before) => before,
  });
  if (!found.data) return <NotThere query={found} words="Following the current…" />;
  const { roots, states } = found.data;
  if (roots.length === 0)
    return (
      <p className="p-6 text-faint">
        Nothing takes current yet: place parts, add a controller, and say at Brief what each control switches.
      </p>
    );
  const spots = spotsOf(roots);
  const now = states.some((one) => one.state === state) ? state : "all";
  const picked = spots.find((spot) => spot.node.id === chosen) ?? null;
  return (
    <div className="flex h-full min-h-0 flex-col max-[900px]:h-auto">
      <div className="flex shrink-0 items-center gap-2 border-b border-rule bg-card text-[12px]">
        <Tabs
          label="State"
          tabs={states.map((s) => [s.state, s.name] as const)}
          now={now}
          onChange={setState}
        />
      </div>
      <div className="flex min-h-0 flex-1 max-[900px]:flex-col">
        <div className="min-h-0 min-w-0 flex-1 overflow-auto bg-desk p-4">
          <Tree
            spots={spots}
            state={now}
            near={found.data.close}
            chosen={picked}
            onChoose={(node) => setChosen(node?.id ?? null)}
          />
        </div>
        <aside
          aria-label="Of this branch"
          className="w-72 shrink-0 space-y-4 overflow-y-auto border-l border-rule bg-sheet px-4 py-3 text-[12px] max-[900px]:w-auto max-[900px]:border-t max-[900px]:border-l-0"
        >
          {found.data.cautions.map((words) => (
            <p key={words} className="border-l-[3px] border-must pl-2.5 font-semibold">
              {words}
            </p>
          ))}
          {picked && <PowerCard node={picked.node} state={now} states={states} />}
          {(!picked || picked.node.kind === "usb") && <UsbCard />}
          <Losses losses={found.data.losses} most={found.data.lost_most} />
          <Stops stops={found.data.stops} />
        </aside>
      </div>
    </div>
  );
}

interface TreeProps {
  spots: readonly Spot[];
  state: State;
  /** From which share of what it bears on a branch is shown as loaded to its limit. */
  near: number;
  chosen: Spot | null;
  onChoose: (node: PowerNode | null) => void;
}

function Tree({ spots, state, near, chosen, onChoose }: TreeProps) {
  const select = useSession((s) => s.select);
  const columns = Math.max(...spots.map((s) => s.column)) + 1;
  const rows = Math.max(...spots.map((s) => s.row)) + 1;
  const onWay = new Set<Spot>();
  for (let at = chosen; at; at = at.above) onWay.add(at);
  return (
    <div className="relative" style={{ width: columns * COLUMN - 32, height: rows * ROW }}>
      <svg aria-hidden className="absolute inset-0" width={columns * COLUMN} height={rows * ROW}>
        {spots.map(
          (spot) =>
            spot.above && (
              <path
                key={spot.node.id}
                d={elbow(spot.above, spot)}
                fill="none"
                stroke={onWay.has(spot) ? "var(--petrol)" : "var(--note)"}
                strokeWidth={thick(spot.node.amps[state] ?? 0)}
                strokeDasharray={(spot.node.amps[state] ?? 0) > 0 ? undefined : "3 4"}
              />
            ),
        )}
      </svg>
      {spots.map((spot) => (
        <NodeBox
          key={spot.node.id}
          spot={spot}
          state={state}
          near={near}
          chosen={chosen === spot}
          onChoose={() => {
            onChoose(chosen === spot ? null : spot.node);
            if (spot.node.function) select([spot.node.function]);
          }}
        />
      ))}
    </div>
  );
}

const top = (spot: Spot) => spot.row * ROW + (ROW - HIGH) / 2;

function elbow(above: Spot, spot: Spot): string {
  const [x, y] = [above.column * COLUMN + WIDE, top(above) + HIGH / 2];
  const [x2, y2] = [spot.column * COLUMN, top(spot) + HIGH / 2];
  return `M${x} ${y}H${(x + x2) / 2}V${y2}H${x2}`;
}

/** A link is as thick as its current, from a hair to a finger. */
const thick = (value: number) => (value > 0 ? Math.min(9, 1 + 1.3 * Math.sqrt(4 * value)) : 1);

const KINDS: Record<PowerNode["kind"], string> = {
  usb: "USB",
  board: "board",
  supply: "supply",
  regulator: "regulator",
  stop: "stop",
  fuse: "fuse",
  breaker: "breaker",
  switch: "switch",
  load: "load",
  lamps: "lamps",
  light: "light",
  parts: "parts",
  coil: "drivers",
};

interface BoxProps {
  spot: Spot;
  state: State;
  near: number;
  chosen: boolean;
  onChoose: () => void;
}

function NodeBox({ spot, state, near, chosen, onChoose }: BoxProps) {
  const { node, column } = spot;
  const now = node.amps[state] ?? 0;
  const share = node.most > 0 ? now / node.most : null;
  const over = share !== null && share > 1.0001;
  const close = share !== null && share > near + 1e-4;
  const cold = state === "all" && node.inrush > 1.05 * now ? `, ${amps(node.inrush)} cold` : "";
  const figure = `${amps(now)}${node.most > 0 ? ` of ${amps(node.most)}` : ""}${cold}`;
  return (
    <button
      type="button"
      aria-pressed={chosen}
      title={`${node.name}: ${figure} at ${node.volts} V`}
      className={`absolute overflow-hidden rounded-[3px] border bg-sheet px-2 pt-1 text-left text-[12px]/[15px] hover:border-petrol ${chosen ? "border-petrol outline-1 outline-petrol" : "border-rule"}`}
      style={{ left: column * COLUMN, top: top(spot), width: WIDE, height: HIGH }}
      onClick={onChoose}
    >
      <span className="flex items-baseline gap-1.5">
        <span className={`truncate ${node.children.length > 0 ? "font-semibold" : ""}`}>{node.name}</span>
        <span className="ml-auto shrink-0 text-[10px] text-faint">{KINDS[node.kind]}</span>
      </span>
      <span className="flex items-baseline gap-1.5 text-[11px]">
        <span
          className={`num truncate ${over ? "font-semibold text-must" : close ? "text-judge" : "text-faint"}`}
        >
          {figure}
        </span>
        <span className="num ml-auto shrink-0 text-[10px] text-faint">{node.volts} V</span>
      </span>
      {share !== null && (
        <span aria-hidden className="absolute inset-x-0 bottom-0 block h-[4px] bg-rule">
          <span
            className={`block h-full ${over ? "bg-must" : close ? "bg-judge" : "bg-petrol"}`}
            style={{ width: `${Math.min(100, 100 * share)}%` }}
          />
        </span>
      )}
    </button>
  );
}

function Losses({ losses, most }: { losses: PowerView["losses"]; most: number }) {
  const select = useSession((s) => s.select);
  if (losses.length === 0) return null;
  return (
    <section aria-label="Lost on the way">
      <h3 className="font-semibold">Lost on the way</h3>
      <p className="text-faint">The worst of each source, everything on, wires as they are laid.</p>
      <ul className="mt-1">
        {losses.map((loss) => (
          <li key={loss.source} className="border-t border-rule py-1">
            <button
              type="button"
              className="flex w-full items-baseline gap-2 text-left hover:underline"
              onClick={() => loss.function && select([loss.function])}
            >
              <span className="min-w-0 flex-1 truncate">
                {loss.source} to {loss.name}
              </span>
              <span className={`num shrink-0 ${loss.share > most ? "text-judge" : ""}`}>
                {loss.lost.toFixed(2)} V, {loss.share.toFixed(1)}%
              </span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Stops({ stops }: { stops: PowerView["stops"] }) {
  const select = useSession((s) => s.select);
  if (stops.length === 0) return null;
  return (
    <section aria-label="Emergency stops">
      <h3 className="font-semibold">Emergency stops</h3>
      {stops.map((stop) => (
        <p key={stop.function} className="mt-1 border-l-[3px] border-must pl-2.5">
          <button
            type="button"
            className="font-semibold hover:underline"
            onClick={() => select([stop.function])}
          >
            {stop.name}
          </button>
          {stop.role &&
            `, ${stop.role === "theatrical" ? "for show" : stop.role === "power" ? "the power switch" : "real"}`}
          : {stop.means}.
        </p>
      ))}
    </section>
  );
}
