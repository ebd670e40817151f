/** Adds a controller of a kind: named by its chip and pins, or one that the builder described. */
import { useState } from "react";
import { useChanges, useDesign } from "./design";
import { OwnBoardDialog } from "./OwnBoard";
import { useTrade } from "./trade";

const DESCRIBE = "(describe)";

export function AddController({ design }: { design: string }) {
  const { send } = useChanges(design);
  const view = useDesign();
  const [describing, setDescribing] = useState(false);
  const kinds = useTrade()?.controllers ?? [];
  const own = view.design.boards;
  return (
    <>
      <select
        aria-label="Add a controller"
        className="h-8 rounded border border-faint bg-sheet px-2 text-[12px]"
        value=""
        disabled={kinds.length === 0}
        onChange={(event) => {
          const board = event.target.value;
          if (board === DESCRIBE) setDescribing(true);
          else if (board) void send([{ do: "add_controller", board, name: "" }]);
        }}
      >
        <option value="">Add a controller…</option>
        {kinds.map(({ board, name }) => (
          <option key={board} value={board}>
            {name}
          </option>
        ))}
        {own.map(({ id, name, pins }) => (
          <option key={id} value={id}>
            {name}, {pins.length} pins, your own
          </option>
        ))}
        <option value={DESCRIBE}>Describe a board of your own…</option>
      </select>
      {describing && <OwnBoardDialog onClose={() => setDescribing(false)} />}
    </>
  );
}
