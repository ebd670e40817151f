import { Sheet } from "../ui/Sheet";
import { everyCommand, keyWords } from "./registry";
import { STATIONS } from "./stations";
import { useTrade } from "./trade";

/** Two of its keys at most: one with Control only beside one without. */
const shortest = (keys: readonly string[]): string[] =>
  keys.length > 2 && !keys[0]?.startsWith("Arrow")
    ? [keys[0] ?? "", keys.at(-1) ?? ""].map(keyWords)
    : keys.map(keyWords);

/** The keys of everything, then of each station that has its own, from the list of commands. */
function keyGroups(): readonly (readonly [string, Rows])[] {
  const keyed = everyCommand().filter((c) => c.keys.length > 0 && !c.id.startsWith("go."));
  const of = (station: string | undefined): Rows =>
    keyed.filter((c) => c.station === station).map((c) => [shortest(c.keys).join("  "), c.words] as const);
  const stations = STATIONS.map((s) => String(s.number)).join(" ");
  const names = STATIONS.map((s) => s.name).join(", ");
  return [
    ["Everywhere", [[stations, `go to ${names}`] as const, ...of(undefined)]],
    ...STATIONS.map((s) => [s.name, of(s.id)] as const).filter(([, rows]) => rows.length > 0),
  ];
}

type Rows = readonly (readonly [string, string])[];

const LINE: Rows = [
  ["x 42.5   y 38", "go to an exact place; 3/16in and 1-1/4 in work too"],
  ["x+2.7   y-1/8in", "move by"],
  ["r 90   r+15", "turn to, turn by"],
  ["gap 19", "keep 19 mm to the nearest neighbour"],
  ["row   column   pitch 25.4", "several parts: line up, or set equal steps"],
];

export function Help({ onClose }: { onClose: () => void }) {
  const trade = useTrade();
  return (
    <Sheet title="Keys, and what the number line takes" open onClose={onClose} wide>
      <div className="columns-2 gap-x-8 max-[860px]:columns-1">
        {keyGroups().map(([title, rows]) => (
          <Section key={title} title={title}>
            <Table rows={rows} />
          </Section>
        ))}
        <Section title="Typed into the number line">
          <Table rows={LINE} />
        </Section>
        <Section title="Before you cut">
          <p className="text-faint">
            Wing Board plans simulators, props and hobby machines. Mains and anything{" "}
            {trade
              ? `from ${trade.licensed_ac} V AC or ${trade.licensed_dc} V DC on`
              : "above extra-low voltage"}{" "}
            is work for a licensed electrician. A real emergency stop breaks the power by its own wiring and
            never depends on a controller. Real aircraft, road vehicles and boats answer to their authority's
            rules. Never leave a laser alone; never laser PVC.
          </p>
        </Section>
      </div>
    </Sheet>
  );
}

function Section({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <section aria-label={title} className="mb-4 break-inside-avoid">
      <h3 className="mb-1">{title}</h3>
      {children}
    </section>
  );
}

function Table({ rows }: { rows: Rows }) {
  return (
    <dl className="grid grid-cols-[max-content_1fr] gap-x-4 gap-y-1.5 self-start">
      {rows.map(([keys, words]) => (
        <div key={keys} className="contents">
          <dt className="num whitespace-pre">{keys}</dt>
          <dd className="text-faint">{words}</dd>
        </div>
      ))}
    </dl>
  );
}
