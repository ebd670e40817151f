/** What a module is bolted together with: the screws' kind, lengths and the sum they follow from, standoffs. */
import { useEffect, useRef, useState } from "react";
import { answered, api } from "../../api/client";
import type { StackView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { Button } from "../../ui/Button";
import { many, shown } from "../../ui/figures";
import { ChoiceField, LengthField, understood } from "../../ui/fields";

const SIZES = (["M2", "M2.5", "M3", "M4", "M5", "M6"] as const).map((size) => [size, size] as const);
const HEADS = [
  ["pan", "Pan head"],
  ["countersunk", "Countersunk"],
] as const;

export function Fixings({ stack }: { stack: StackView }) {
  const view = useDesign();
  const { send } = useChanges(view.id);
  const fixings = view.design.modules.find((m) => m.id === stack.module)?.fixings;
  const here = { do: "set_fixings", module: stack.module } as const;
  return (
    <div className="space-y-3 p-3.5 text-[12px]">
      {fixings ? (
        <div className="grid grid-cols-2 gap-2">
          <ChoiceField
            label="Screws"
            value={fixings.screw}
            options={SIZES}
            onCommit={(screw) => void send([{ ...here, screw }])}
          />
          <ChoiceField
            label="Heads"
            value={fixings.head}
            options={HEADS}
            onCommit={(head) => void send([{ ...here, head }])}
          />
          <LengthField
            label="To the edge"
            value={fixings.inset}
            onCommit={(inset) => void send([{ ...here, inset }])}
          />
          <LengthField
            label="Pins, ⌀ (0: none)"
            value={fixings.pins}
            onCommit={(pins) => void send([{ ...here, pins }])}
          />
          <label className="flex items-end gap-2 pb-1.5">
            <input
              type="checkbox"
              className="accent-petrol"
              checked={fixings.corners}
              onChange={(event) => void send([{ ...here, corners: event.target.checked }])}
            />
            in each corner
          </label>
        </div>
      ) : (
        <p className="text-faint">This module has no screws. Brief gives it some, under Workshop.</p>
      )}
      {fixings && <Propose key={stack.module} stack={stack} />}
      <h3 className="text-[13px] font-semibold">To buy for this module</h3>
      <ul className="space-y-2">
        {stack.bolts.map((bolt) => (
          <li key={bolt.where + bolt.name}>
            <span className="flex justify-between gap-2">
              <span className="num font-semibold">{bolt.name}</span>
              <span className="num">{bolt.count}</span>
            </span>
            <span className="block text-[11px] text-faint">
              {bolt.where}: {bolt.adds} = {shown(bolt.needed)}
              {bolt.length == null ? "; none is sold so long" : `, next sold ${bolt.length}`}
            </span>
          </li>
        ))}
        {stack.standoffs.map((standoff) => (
          <li key={standoff.where + standoff.name}>
            <span className="flex justify-between gap-2">
              <span className="num font-semibold">{standoff.name}</span>
              <span className="num">{standoff.count}</span>
            </span>
            <span className={`block text-[11px] ${standoff.sold ? "text-faint" : "text-judge"}`}>
              {standoff.where}
              {standoff.sold ? "" : ": not sold in this length"}
            </span>
          </li>
        ))}
      </ul>
      {stack.bolts.length + stack.standoffs.length === 0 && <p className="text-faint">Nothing.</p>}
    </div>
  );
}

/** More screws, no further apart than a span, where nothing is in their way. */
function Propose({ stack }: { stack: StackView }) {
  const { id } = useDesign();
  const { send } = useChanges(id);
  const [span, setSpan] = useState(stack.span);
  const [said, setSaid] = useState("");
  const latest = useRef(span); // typed right before, it is read only by then
  useEffect(() => {
    latest.current = span;
  });
  const propose = async (form: Element | null) => {
    if (!(await understood(form))) return;
    try {
      const found = await answered(
        api.GET("/api/designs/{design_id}/stack/{module}/screws", {
          params: { path: { design_id: id, module: stack.module }, query: { span: latest.current } },
        }),
      );
      const none =
        found.spots.length === 0 ? "None is missing" : `${many(found.spots.length, "screw")} added`;
      setSaid(
        found.no_room > 0 ? `${none}; ${many(found.no_room, "stretch", "stretches")} without room` : none,
      );
      if (found.spots.length > 0)
        void send(found.spots.map((at) => ({ do: "add_screw", module: stack.module, ...at })));
    } catch (error) {
      setSaid(error instanceof Error ? error.message : "No answer");
    }
  };
  return (
    <div className="space-y-1.5">
      <LengthField label="Screws at most so far apart" value={span} least={20} onCommit={setSpan} />
      <Button onClick={(event) => void propose(event.currentTarget.parentElement)}>
        Add what is missing
      </Button>
      <p role="status" className="text-[11px] text-faint">
        {said || "sixty times the plate in plastics and wood, a hundred times in metal: common practice"}
      </p>
    </div>
  );
}
