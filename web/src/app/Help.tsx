import { Sheet } from "../ui/Sheet";

const KEYS: readonly (readonly [string, string])[] = [
  ["1 2 3 6 7", "go to Brief, Parts, Face, Cut, Wire"],
  ["/  or  Ctrl K", "find any function, part, pin or action by name"],
  ["[  ]", "previous, next finding; its place lights up"],
  ["S", "settle the finding: apply its fix"],
  ["A", "accept what is to judge, with a reason"],
  ["Z   Shift Z", "undo, redo"],
  ["Arrows", "nudge 1 mm; with Shift 10, with Alt 0.1"],
  ["R   Shift R", "turn 15° counter-clockwise, clockwise"],
  ["Delete", "put the part back into the tray"],
  ["P", "Face: place the next part of the tray"],
  ["V", "Face: the next view: hands, behind, webs, reference, eye"],
  ["L   C", "Face: lock or free, copy what is selected"],
  ["M", "Face: measure between two clicks"],
  ["Page up, Page down", "Face: previous, next part of the module"],
  ["+  −  0", "Face: larger, smaller, all of it"],
  ["N   F", "Brief: type a new function, filter the list"],
  ["Alt ↑ ↓", "Brief: move rows; Shift ↑ ↓ selects several"],
  ["W", "fold the worklist away, or bring it back"],
  ["Esc", "step out: of a field, a sheet, the selection"],
];

const LINE: readonly (readonly [string, string])[] = [
  ["x 42.5   y 38", "go to an exact place; 3/16in and 1-1/4 in work too"],
  ["x+2.7   y-1/8in", "move by"],
  ["r 90   r+15", "turn to, turn by"],
  ["gap 19", "keep 19 mm to the nearest neighbour"],
  ["row   column   pitch 25.4", "several parts: line up, or set equal steps"],
];

export function Help({ onClose }: { onClose: () => void }) {
  return (
    <Sheet title="Keys, and what the number line takes" open onClose={onClose} wide>
      <div className="grid grid-cols-2 gap-x-8">
        <Table rows={KEYS} />
        <div>
          <Table rows={LINE} />
          <h3 className="mt-5">Before you cut</h3>
          <p className="mt-1 text-faint">
            Wing Board plans simulators, props and hobby machines. Mains and anything above 50 V AC or 120 V
            DC is work for a licensed electrician. A real emergency stop breaks the power by its own wiring
            and never depends on a controller. Real aircraft, road vehicles and boats answer to their
            authority's rules. Never leave a laser alone; never laser PVC.
          </p>
        </div>
      </div>
    </Sheet>
  );
}

function Table({ rows }: { rows: readonly (readonly [string, string])[] }) {
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
