/** Where names of things on a drawing stand: inside them where they fit, else beside with a line, over nothing else. */

/** A rectangle in pixels, y down. */
export interface Rect {
  x: number;
  y: number;
  width: number;
  height: number;
}

export interface Label {
  lines: string[];
  /** The middle of the words. */
  x: number;
  y: number;
  /** From the thing to words that stand beside it. */
  leader: { x0: number; y0: number; x1: number; y1: number } | null;
}

export const LETTER = 5.4;
export const LINE = 12;

/** Words in lines that are no wider than so many pixels; a word that is longer stays whole. */
export function wrapped(text: string, width: number): string[] {
  const lines: string[] = [];
  for (const word of text.split(" ")) {
    const last = lines.at(-1);
    if (last !== undefined && (last.length + 1 + word.length) * LETTER <= width)
      lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word);
  }
  return lines;
}

const sizeOf = (lines: readonly string[]) => ({
  width: Math.max(...lines.map((l) => l.length)) * LETTER + 4,
  height: lines.length * LINE + 2,
});

/** Words round a point outside the box that they name, with a line to its nearest edge. */
function beside(lines: string[], x: number, y: number, box: Rect): Label {
  const { width, height } = sizeOf(lines);
  const between = (least: number, value: number, most: number) => Math.max(least, Math.min(most, value));
  const x0 = between(box.x, x, box.x + box.width);
  const y0 = between(box.y, y, box.y + box.height);
  const x1 = between(x - width / 2, x0, x + width / 2);
  const y1 = between(y - height / 2, y0, y + height / 2);
  return { lines, x, y, leader: { x0, y0, x1, y1 } };
}

/** Labels whose lines cross change places: the lines are shorter for it, and none crosses. */
function uncross(made: Map<number, Label>, things: readonly { box: Rect }[]): void {
  const outside = [...made.keys()].filter((n) => made.get(n)?.leader);
  for (let round = 0; round < outside.length; round++) {
    let changed = false;
    for (const [k, n] of outside.entries())
      for (const m of outside.slice(k + 1)) {
        const one = made.get(n);
        const other = made.get(m);
        const boxes = [things[n]?.box, things[m]?.box] as const;
        if (!one?.leader || !other?.leader || !boxes[0] || !boxes[1] || !cross(one.leader, other.leader))
          continue;
        made.set(n, beside(one.lines, other.x, other.y, boxes[0]));
        made.set(m, beside(other.lines, one.x, one.y, boxes[1]));
        changed = true;
      }
    if (!changed) return;
  }
}

type Leader = NonNullable<Label["leader"]>;

/** Whether two lines cross: the ends of each lie on both sides of the other. */
function cross(a: Leader, b: Leader): boolean {
  const side = (l: Leader, x: number, y: number) =>
    Math.sign((l.x1 - l.x0) * (y - l.y0) - (l.y1 - l.y0) * (x - l.x0));
  return side(a, b.x0, b.y0) * side(a, b.x1, b.y1) < 0 && side(b, a.x0, a.y0) * side(b, a.x1, a.y1) < 0;
}

/** A label over others, or out of the window, by more than this share of itself is not drawn. */
const COVERED = 0.15;

const overlap = (a: Rect, b: Rect): number =>
  Math.max(0, Math.min(a.x + a.width, b.x + b.width) - Math.max(a.x, b.x)) *
  Math.max(0, Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y));

/** How far (pixels) words are tried from what they name. */
const RINGS = [6, 18, 34, 54, 80];
const WIDEST = 92;

/** A label for each thing, those that fit inside first; `extra` lines come after the name. Null: it has no room. */
export function placeLabels(
  things: readonly { box: Rect; name: string; extra: string }[],
  room: Rect,
  fixed: readonly Rect[] = [],
): (Label | null)[] {
  const taken: Rect[] = [...things.map((t) => t.box), ...fixed];
  const made = new Map<number, Label>();
  things.forEach(({ box, name, extra }, n) => {
    const lines = [...wrapped(name, box.width - 4), extra];
    const { width, height } = sizeOf(lines);
    if (width <= box.width && height <= box.height)
      made.set(n, { lines, x: box.x + box.width / 2, y: box.y + box.height / 2, leader: null });
  });
  things.forEach(({ box, name, extra }, n) => {
    if (made.has(n)) return;
    const lines = [...wrapped(name, WIDEST), extra];
    const size = sizeOf(lines);
    const cx = box.x + box.width / 2;
    const cy = box.y + box.height / 2;
    let best: { rect: Rect; cost: number; share: number } | null = null;
    for (const [ring, away] of RINGS.entries()) {
      const dx = box.width / 2 + away + size.width / 2;
      const dy = box.height / 2 + away + size.height / 2;
      const ways = [
        [0, dy], [0, -dy], [dx, 0], [-dx, 0], [dx, dy], [-dx, dy], [dx, -dy], [-dx, -dy],
      ] as const; // prettier-ignore
      for (const [x, y] of ways) {
        const rect = { x: cx + x - size.width / 2, y: cy + y - size.height / 2, ...size };
        const area = rect.width * rect.height;
        const hidden =
          area - overlap(rect, room) + taken.reduce((sum, other) => sum + overlap(rect, other), 0);
        const cost = hidden + ring * 8;
        if (!best || cost < best.cost) best = { rect, cost, share: hidden / area };
      }
      if (best && best.cost <= ring * 8) break;
    }
    if (!best || best.share > COVERED) return;
    taken.push(best.rect);
    made.set(n, beside(lines, best.rect.x + size.width / 2, best.rect.y + size.height / 2, box));
  });
  uncross(made, things);
  return things.map((_, n) => made.get(n) ?? null);
}
