/** The frame of a wooden console round the opening: its battens, its diagonals, where its screws go. */
import type { Command, StackView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { Button } from "../../ui/Button";
import { many, shown } from "../../ui/figures";
import { LengthField } from "../../ui/fields";
import { useStack } from "./store";

type Changes = Omit<Extract<Command, { do: "set_frame" }>, "do">;

export function FrameForm({ stack }: { stack: StackView }) {
  const { id } = useDesign();
  const { send } = useChanges(id);
  const set = (changes: Changes) => void send([{ do: "set_frame", ...changes }]);
  const made = stack.frame;
  if (!made)
    return (
      <div className="space-y-2 border-t border-rule p-3.5 text-[12px]">
        <p className="text-faint">
          For a wooden console: battens round the whole opening and under each seam, which the modules rest
          on.
        </p>
        <Button
          onClick={() => {
            set({});
            useStack.getState().set({ view: "frame" });
          }}
        >
          Give the opening a frame
        </Button>
      </div>
    );
  const { frame } = made;
  return (
    <section aria-label="Frame of the opening" className="space-y-3 border-t border-rule p-3.5 text-[12px]">
      <h3 className="text-[13px] font-semibold">Frame of the opening</h3>
      <div className="grid grid-cols-2 gap-2">
        <LengthField label="Battens, wide" value={frame.wide} least={5} onCommit={(wide) => set({ wide })} />
        <LengthField label="Battens, deep" value={frame.deep} least={5} onCommit={(deep) => set({ deep })} />
        <LengthField label="Ledge" value={frame.ledge} onCommit={(ledge) => set({ ledge })} />
        <LengthField
          label="Screws at most"
          value={frame.screws}
          least={20}
          onCommit={(screws) => set({ screws })}
        />
      </div>
      <p>
        Both diagonals of its clear inside are <span className="num">{shown(made.diagonal)}</span>; they may
        differ by <span className="num">{shown(made.differ)}</span>. The screws run{" "}
        <span className="num">{shown(made.from_edge)}</span> outside the opening's edge.
      </p>
      <ul className="space-y-1">
        {made.battens.map((b) => (
          <li key={b.name} className="flex justify-between gap-2">
            <span>{b.name}</span>
            <span className="num whitespace-nowrap">
              {shown(b.length)}, {many(b.screws.length, "screw")}
            </span>
          </li>
        ))}
      </ul>
      <Button look="quiet" onClick={() => void send([{ do: "remove_frame" }])}>
        Remove the frame
      </Button>
    </section>
  );
}
