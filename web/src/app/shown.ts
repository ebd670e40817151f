/** The design as the page shows it: what the server kept, with what was moved since and waits to be kept. */
import type { Command, DesignView, Fn } from "../api/types";
import type { Waiting } from "./queue";

/**
 * Whether a change is not in the design yet. One that was sent against an older revision than this may be in it:
 * the answer got lost, or is on its way.
 */
const isAfter = (one: Waiting, view: DesignView): boolean =>
  one.design === view.id &&
  (one.kept === null ? one.base === null || one.base >= view.revision : one.kept > view.revision);

/** The commands that wait to be kept, in their order. */
export const commandsAfter = (view: DesignView, waiting: readonly Waiting[]): Command[] =>
  waiting.flatMap((one) => (isAfter(one, view) && one.ask.to === "commands" ? one.ask.commands : []));

function placed(fn: Fn, command: Command): Fn {
  switch (command.do) {
    case "place":
      return command.function === fn.id
        ? { ...fn, place: { module: command.module, x: command.x, y: command.y, turn: command.turn ?? 0 } }
        : fn;
    case "move":
      return fn.place && command.functions?.includes(fn.id)
        ? {
            ...fn,
            place: {
              ...fn.place,
              x: fn.place.x + (command.dx ?? 0),
              y: fn.place.y + (command.dy ?? 0),
            },
          }
        : fn;
    case "turn":
      return fn.place && command.functions.includes(fn.id)
        ? { ...fn, place: { ...fn.place, turn: fn.place.turn + command.by } }
        : fn;
    case "remove":
      return command.functions.includes(fn.id) ? { ...fn, place: null } : fn;
    default:
      return fn;
  }
}

/** The design with the parts where they were last put; functions that did not move are the same objects. */
export function shownDesign(view: DesignView, waiting: readonly Waiting[]): DesignView {
  const commands = commandsAfter(view, waiting);
  if (commands.length === 0) return view;
  const functions = view.design.functions.map((fn) => commands.reduce(placed, fn));
  return { ...view, design: { ...view.design, functions } };
}
