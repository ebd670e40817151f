/** Boards behind a module: controllers and others, put where there is room, moved and turned by their figures. */
import { useState } from "react";
import type { Controller, SpotsView, StackView } from "../../api/types";
import { answered, api } from "../../api/client";
import { useChanges, useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { Button } from "../../ui/Button";
import { shown } from "../../ui/figures";
import { ChoiceField, LengthField, TextField } from "../../ui/fields";
import { TakeAway } from "../../ui/TakeAway";
import { useStack } from "./store";

const ON = [
  ["plate", "On the back of the plate"],
  ["board", "On the last board"],
] as const;

export function Boards({ stack }: { stack: StackView }) {
  const view = useDesign();
  const { send } = useChanges(view.id);
  const chosen = useStack((s) => s.board);
  const set = useStack((s) => s.set);
  const [busy, setBusy] = useState(false);
  const there = new Set(
    view.design.modules.flatMap((m) => m.mounted.map((b) => b.controller).filter((c) => c != null)),
  );
  const spots = (query: {
    board?: Controller["board"];
    width?: number;
    height?: number;
  }): Promise<SpotsView> =>
    answered(
      api.GET("/api/designs/{design_id}/stack/{module}/free", {
        params: { path: { design_id: view.id, module: stack.module }, query },
      }),
    );
  const mount = (name: string, controller?: Controller) => {
    setBusy(true);
    void spots(controller ? { board: controller.board } : {})
      .then((free) => {
        const spot = free.spots[0];
        if (!spot)
          useSession.getState().set({ notice: `No room behind for ${name}: it stands in the middle now` });
        return send([
          {
            do: "mount_board",
            module: stack.module,
            name,
            width: free.width,
            height: free.height,
            holes: free.holes,
            ...(controller ? { controller: controller.id } : {}),
            ...(spot ?? {}),
          },
        ]);
      })
      .catch((error: unknown) =>
        useSession.getState().set({ notice: error instanceof Error ? error.message : "No answer" }),
      )
      .finally(() => setBusy(false));
  };
  const waiting = view.design.controllers.filter((c) => !there.has(c.id));
  return (
    <div className="space-y-3 p-3.5 text-[12px]">
      {stack.mounted.length === 0 && (
        <p className="text-faint">
          No board is behind this module yet. One that is put here takes the roomiest free place.
        </p>
      )}
      {stack.mounted.map(({ board, z0, z1 }) => (
        <section key={board.id} aria-label={board.name} className="border-b border-rule pb-3">
          <div className="flex items-start justify-between gap-2">
            <button
              type="button"
              className="text-left font-semibold hover:underline"
              aria-pressed={chosen === board.id}
              onClick={() => set({ board: board.id, view: "layer" })}
            >
              {board.name}
              <span className="block text-[11px] font-normal text-faint">
                <span className="num">
                  {shown(board.width)} × {shown(board.height)}
                </span>
                , <span className="num">{shown(z0)}</span> to <span className="num">{shown(z1)}</span> deep
              </span>
            </button>
            <TakeAway
              what={board.name}
              onTake={() => void send([{ do: "unmount_board", module: stack.module, board: board.id }])}
            />
          </div>
          {chosen === board.id && <BoardFields stack={stack} board={board} />}
        </section>
      ))}
      <div className="flex flex-wrap gap-2">
        {waiting.map((c) => (
          <Button key={c.id} disabled={busy} onClick={() => mount(c.name, c)}>
            Put {c.name} here
          </Button>
        ))}
        <Button look="quiet" disabled={busy} onClick={() => mount("Board of my own")}>
          Another board
        </Button>
      </div>
      <p className="text-[11px] text-faint">
        Sizes and holes of the usual boards are from memory: measure yours before drilling.
      </p>
    </div>
  );
}

function BoardFields({ stack, board }: { stack: StackView; board: StackView["mounted"][number]["board"] }) {
  const { id } = useDesign();
  const { send } = useChanges(id);
  const edit = (changes: Partial<typeof board>) => {
    const { name, on, width, height, thickness, tall, gap, x, y, turn } = changes;
    const said = { name, on, width, height, thickness, tall, gap, x, y, turn };
    const given = Object.fromEntries(Object.entries(said).filter(([, value]) => value !== undefined));
    void send([{ do: "edit_mounted", module: stack.module, board: board.id, ...given }]);
  };
  return (
    <div className="mt-2 grid grid-cols-2 gap-2">
      <TextField label="Name" value={board.name} needed onCommit={(name) => edit({ name })} />
      <ChoiceField label="Stands" value={board.on} options={ON} onCommit={(on) => edit({ on })} />
      <LengthField label="x" value={board.x} least={-10000} onCommit={(x) => edit({ x })} />
      <LengthField label="y" value={board.y} least={-10000} onCommit={(y) => edit({ y })} />
      <LengthField label="Width" value={board.width} least={1} onCommit={(width) => edit({ width })} />
      <LengthField label="Height" value={board.height} least={1} onCommit={(height) => edit({ height })} />
      <LengthField label="Standoffs" value={board.gap} onCommit={(gap) => edit({ gap })} />
      <LengthField label="What stands on it" value={board.tall} onCommit={(tall) => edit({ tall })} />
      <Button onClick={() => edit({ turn: (board.turn + 90) % 360 })}>Turn by 90°</Button>
    </div>
  );
}
