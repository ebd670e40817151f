/** Putting the selected parts in order: each with its word, its key and its commands. */
import type { Command, Fn } from "../../api/types";
import { useSession } from "../../app/session";

export type How = Extract<Command, { do: "arrange" }>["how"];

const arrange = (functions: string[], how: How): Command => ({
  do: "arrange",
  functions,
  how,
  order: "place",
  pitch: 0,
  pitch_y: 0,
  columns: Math.max(2, Math.ceil(Math.sqrt(functions.length))),
  radius: 45,
  start: 150,
  end: 30,
});

export interface Action {
  id: string;
  words: string;
  title: string;
  /** How many placed parts it wants at least. */
  least: number;
  commands: (ids: string[], here: readonly Fn[]) => Command[];
}

const how = (id: How, words: string, title: string, least = 2): Action => ({
  id,
  words,
  title,
  least,
  commands: (ids) => [arrange(ids, id)],
});

const grouped = (ids: string[], here: readonly Fn[]): [string[], string[]] => {
  const groups = [...new Set(here.filter((f) => ids.includes(f.id)).map((f) => f.group))];
  const of = (group: string | undefined) =>
    ids.filter((id) => here.find((f) => f.id === id)?.group === group);
  return groups.length === 2 ? [of(groups[0]), of(groups[1])] : [ids.slice(0, 1), ids.slice(1)];
};

export const ACTIONS: readonly Action[] = [
  how("row", "Row", "In a row, the first selected stays"),
  how("column", "Column", "One below the other"),
  how("grid", "Grid", "In a square grid"),
  how("arc", "Arc", "On an arc"),
  how("ring", "Ring", "On a circle", 3),
  how("align-y", "Level", "Centres on one level line"),
  how("align-x", "Upright", "Centres on one upright line"),
  how("align-left", "Left edges", "Left edges in line"),
  how("align-right", "Right edges", "Right edges in line"),
  how("align-top", "Upper edges", "Upper edges in line"),
  how("align-bottom", "Lower edges", "Lower edges in line"),
  how("distribute-x", "Even gaps ↔", "Equal gaps between the outer two", 3),
  how("distribute-y", "Even gaps ↕", "Equal gaps between the outer two", 3),
  how("pitch-x", "Even pitch ↔", "Equal centre distances", 3),
  how("pitch-y", "Even pitch ↕", "Equal centre distances", 3),
  how("mirror", "Mirror", "Left for right about their middle", 1),
  {
    id: "swap",
    words: "Swap",
    title: "Two groups, or two parts, change places",
    least: 2,
    commands: (ids, here) => {
      const [first, second] = grouped(ids, here);
      return [{ do: "swap_groups", first, second }];
    },
  },
  {
    id: "pair",
    words: "Pair",
    title: "The second becomes the first's mirror image about the panel's middle, and stays a pair",
    least: 2,
    commands: ([first = "", second = ""]) => [{ do: "pair", first, second }],
  },
  {
    id: "lock",
    words: "Lock",
    title: "They stay where they are, or are freed again",
    least: 1,
    commands: (ids, here) => {
      const locked = !here.filter((f) => ids.includes(f.id)).every((f) => f.locked);
      return [{ do: "lock", functions: ids, locked }];
    },
  },
  {
    id: "copy",
    words: "Copy",
    title: "Each as a new function beside it",
    least: 1,
    commands: (ids) => [{ do: "copy_items", functions: ids, graphics: [], dx: 0, dy: -30 }],
  },
];

/** The selected functions that are on a panel, in the order they were selected. */
export const placedSelection = (here: readonly Fn[]): string[] =>
  useSession.getState().selection.filter((id) => here.some((f) => f.id === id && f.place != null));
