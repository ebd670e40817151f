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
    const { rect } = best;
    taken.push(rect);
    const x = rect.x + rect.width / 2;
    const y = rect.y + rect.height / 2;
    const to = {
      x: Math.max(box.x, Math.min(box.x + box.width, x)),
      y: Math.max(box.y, Math.min(box.y + box.height, y)),
    };
    const from = {
      x: Math.max(rect.x, Math.min(rect.x + rect.width, to.x)),
      y: Math.max(rect.y, Math.min(rect.y + rect.height, to.y)),
    };
    made.set(n, { lines, x, y, leader: { x0: to.x, y0: to.y, x1: from.x, y1: from.y } });
  });
  return things.map((_, n) => made.get(n) ?? null);
}
