/** Where things stand on the drawing of Wire: the module at the left as large as it is, a board at the right beside it,
 * large enough that the names at its pins can be read. Millimetres, y up. */
import type { BoardView, ModuleBehind, WireView } from "../../api/types";

/** Lines that are lit, by their ids; none while nothing is chosen. */
export type Lit = ReadonlySet<string>;

export interface Pinned {
  name: string;
  x: number;
  y: number;
  left: boolean;
}

export interface Layout {
  /** One step of the board's drawing: grows with the module, so that both can be read in one window. */
  unit: number;
  /** Lower left of the module, and of the board. */
  module: { x: number; y: number };
  board: { x: number; y: number; width: number; height: number };
  pins: Map<string, Pinned>;
  /** Supplies and grounds. */
  pads: Pinned[];
  /** Plugs between, each with the place of its contacts by plug and number. */
  plugs: PlugAt[];
  contacts: Map<string, { x: number; y: number }>;
  /** Where lines arrive, left of the names; those of the right row of pins so much lower. */
  arrival: number;
  lower: number;
  /** From the middle of a row of pins to halfway to the next. */
  between: number;
  extent: { x: number; y: number; width: number; height: number };
}

export interface PlugAt {
  id: string;
  title: string;
  x: number;
  y: number;
  width: number;
  height: number;
}

type Plug = WireView["plugs"][number];

const USUAL = 300;
const PITCH = 12.5;
const BOARD = 64;
const NAMES = 118;
const GAP = 62;
/** Rows left free before the header at the end. */
const APART = 0.8;
/** From contact to contact of a plug, and the room on each of its sides. */
const CONTACT = 9;
const BESIDE = 58;
/** What goes to the right row of pins arrives a little lower than what goes to the left one. */
const LOWER = 2.4;

/** Pads as they lie on the board: two rows of them, and below those of the header at its end. */
export function laidOut(
  module: ModuleBehind,
  board: BoardView | undefined,
  plugs: readonly Plug[] = [],
): Layout {
  const unit = Math.max(module.width, module.height, 160) / USUAL;
  const sides = board?.sides ?? [];
  const long = (side: (typeof sides)[number]) => Math.max(side.left.length, side.right.length);
  const rows = sides.reduce((sum, side) => sum + long(side), 0) + Math.max(0, sides.length - 1) * APART;
  const height = (rows + 1) * PITCH * unit;
  const all = Math.max(module.height, height);
  const left = { x: 0, y: (all - module.height) / 2 };
  const across = Math.max(0, ...plugs.map((plug) => plug.rows.length)) * CONTACT;
  const arrival = module.width + (plugs.length > 0 ? 2 * BESIDE + across : GAP) * unit;
  const x = arrival + NAMES * unit;
  const y = (all - height) / 2;
  const names = new Set(board?.pins.map((pin) => pin.name));
  const pins = new Map<string, Pinned>();
  const pads: Pinned[] = [];
  let above = 0;
  for (const side of sides) {
    for (const isLeft of [true, false])
      (isLeft ? side.left : side.right).forEach((name, n) => {
        const at = {
          name,
          x: x + (isLeft ? 7 : BOARD - 7) * unit,
          y: y + height - (above + n + 1) * PITCH * unit,
          left: isLeft,
        };
        if (names.has(name)) pins.set(name, at);
        else pads.push(at);
      });
    above += long(side) + APART;
  }
  const width = x + (BOARD + NAMES) * unit;
  const between = placed(plugs, module.width + BESIDE * unit, all, unit);
  return {
    unit,
    module: left,
    board: { x, y, width: BOARD * unit, height },
    pins,
    pads,
    ...between,
    arrival,
    lower: LOWER * unit,
    between: (PITCH / 2) * unit,
    extent: { x: 0, y: 0, width, height: all + 16 * unit },
  };
}

/** Plugs one above the other, in the middle of the height; each row of contacts is a column. */
function placed(plugs: readonly Plug[], x: number, all: number, unit: number) {
  const contacts = new Map<string, { x: number; y: number }>();
  const long = (plug: Plug) => Math.max(...plug.rows.map((row) => row.length));
  const step = Math.min(CONTACT * unit, all / (plugs.reduce((sum, plug) => sum + long(plug) + 3, 0) || 1));
  const height =
    plugs.reduce((sum, plug) => sum + (long(plug) + 1) * step, 0) + (plugs.length - 1) * 2 * step;
  let top = (all + height) / 2;
  const made: PlugAt[] = plugs.map((plug) => {
    const high = (long(plug) + 1) * step;
    const width = (plug.rows.length + 0.4) * step;
    plug.rows.forEach((row, column) =>
      row.forEach((number, n) => {
        const place = n + (long(plug) - row.length) / 2;
        contacts.set(`${plug.id} ${number}`, { x: x + (column + 0.7) * step, y: top - (place + 1) * step });
      }),
    );
    const at = { id: plug.id, title: plug.title, x, y: top - high, width, height: high };
    top -= high + 2 * step;
    return at;
  });
  return { plugs: made, contacts };
}

/** From the end of a line on its part to where it arrives; a whole one goes on to its pin, under the names. */
export function wirePath(
  from: { x: number; y: number },
  to: Pinned,
  layout: Layout,
  whole: boolean,
  through?: { x: number; y: number },
): string {
  const { arrival, lower, between } = layout;
  if (through) {
    const first = (through.x - from.x) * 0.5;
    const lead = `M${from.x} ${from.y}C${from.x + first} ${from.y} ${through.x - first} ${through.y} ${through.x} ${through.y}`;
    return lead + wirePath(through, to, layout, whole).replace(/^M[^C]*/, "");
  }
  const bend = (arrival - from.x) * 0.5;
  const y = whole ? to.y - between : to.left ? to.y : to.y - lower;
  const curve = `M${from.x} ${from.y}C${from.x + bend} ${from.y} ${arrival - bend} ${y} ${arrival} ${y}`;
  return whole ? `${curve}H${to.x}V${to.y}` : curve;
}
