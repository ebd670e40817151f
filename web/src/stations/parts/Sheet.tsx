/** A part's sheet: front, side in this panel's layers, its dimensions, how many there are, and what it costs here. */
import type { Drawer, Fn, PartSheet } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { Button } from "../../ui/Button";
import { FigureField } from "../../ui/fields";
import { money } from "../../ui/money";
import { Candidates } from "./Candidates";
import { Chooser } from "./Chooser";
import { Dimensions } from "./Dimensions";
import { FrontView } from "./FrontView";
import { Mine } from "./Mine";
import { SideView } from "./SideView";

interface Props {
  sheet: PartSheet;
  drawer: Drawer;
  chosen: Fn[];
  onPick: (part: string) => void;
  onBest: (functions: Fn[]) => void;
}

export function Sheet({ sheet, drawer, chosen: all, onPick, onBest }: Props) {
  const { part } = sheet;
  const chosen = all.length === 1 ? all[0] : undefined;
  return (
    <div className="p-5">
      <Chooser part={part} chosen={all} onPick={onPick} onBest={onBest} />
      <h2 className="text-[15px]">{part.name}</h2>
      <p className="text-faint">{part.summary}</p>
      <div className="mt-3 grid grid-cols-2 items-center gap-2 rounded bg-card p-3">
        <FrontView
          part={part}
          detents={sheet.detents}
          used={chosen?.part === part.id ? chosen.positions.length || undefined : undefined}
        />
        <SideView side={sheet.side} freeDepth={drawer.free_depth} />
        <p className="text-center text-[11px] text-faint">from the front</p>
        <p className="text-center text-[11px] text-faint">from the side, in this panel's layers</p>
      </div>
      {sheet.own ? <Mine sheet={sheet} onPick={onPick} /> : <Copy sheet={sheet} onPick={onPick} />}
      {chosen && <Candidates fn={chosen} onPick={onPick} />}
      <Dimensions sheet={sheet} drawer={drawer} />
      {part.family === "emergency" && (
        <p className="mt-4 border-l-[3px] border-must pl-2.5 text-[12px]/[16px]">
          A real emergency stop breaks the power through its own hard-wired contact. It never passes a
          microcontroller; the line here only reports it.
        </p>
      )}
      <Counts sheet={sheet} />
    </div>
  );
}

/** A part of the catalogue states typical figures: a copy takes the builder's own. */
function Copy({ sheet: { part }, onPick }: { sheet: PartSheet; onPick: (part: string) => void }) {
  const { id } = useDesign();
  const { send } = useChanges(id);
  return (
    <p className="mt-3 flex items-center gap-2 text-[12px] text-faint">
      <Button
        onClick={() =>
          void send([{ do: "copy_part", part: part.id, name: `${part.name}, mine`.slice(0, 120) }]).then(
            (kept) => {
              const made = kept?.design.parts.at(-1);
              if (made) onPick(made.id);
            },
          )
        }
      >
        Measure yours
      </Button>
      copies it, to take your calliper's readings
    </p>
  );
}

function Counts({ sheet }: { sheet: PartSheet }) {
  const { id, design } = useDesign();
  const { send } = useChanges(id);
  const { part } = sheet;
  const { currency } = design.brief;
  return (
    <section aria-label="How many" className="mt-5">
      <h3 className="text-[12px]">How many</h3>
      <div className="mt-1 grid grid-cols-4 items-end gap-2">
        <Figure words="in use" value={sheet.used_by.length} />
        <Figure words={part.times > 1 ? `with spares, ×${part.times}` : "needed"} value={sheet.needed} />
        <FigureField
          label="on hand"
          whole
          value={sheet.on_hand}
          most={100000}
          onCommit={(count) => void send([{ do: "set_on_hand", part: part.id, count }])}
        />
        <Figure words="to buy" value={sheet.to_buy} />
      </div>
      <p className="mt-1.5 text-[12px] text-faint">
        <span className="num">{money(part.price, currency)}</span> each, new
        {part.used && (
          <>
            , <span className="num">{money(part.used.low)}</span> to{" "}
            <span className="num">{money(part.used.high, currency)}</span> used
          </>
        )}
        {part.sample_first && ". Its light is untested: buy one first, try it in the dark, then the rest"}
      </p>
      <ul className="mt-1 flex flex-wrap gap-x-3">
        {design.functions
          .filter((f) => sheet.used_by.includes(f.id))
          .map((f) => (
            <li key={f.id}>
              <button
                type="button"
                className="text-petrol underline"
                onClick={() => useSession.getState().select([f.id])}
              >
                {f.name}
              </button>
            </li>
          ))}
        {sheet.used_by.length === 0 && <li className="text-faint">used by nothing yet</li>}
      </ul>
    </section>
  );
}

function Figure({ words, value }: { words: string; value: number }) {
  return (
    <p>
      <span className="block text-[11px] text-faint">{words}</span>
      <span className="num block h-8 rounded bg-card px-2 pt-1.5 text-right">{value}</span>
    </p>
  );
}
