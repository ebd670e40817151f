/** Faint copies of what is held: Alt drags them in its place. */
import type { Held } from "./held";

export function ghostsOf(held: Held): { draw: (dx: number, dy: number) => void; drop: () => void } {
  const ids = [...held.functions.map((f) => `part-${f.id}`), ...held.graphics.map((g) => `graphic-${g}`)];
  const made = ids.flatMap((id) => {
    const node = document.getElementById(id);
    if (!node?.parentElement) return [];
    const copy = node.cloneNode(true) as SVGGElement;
    for (const one of [copy, ...copy.querySelectorAll("[id]")]) one.removeAttribute("id");
    copy.removeAttribute("data-fn");
    copy.setAttribute("aria-hidden", "true");
    copy.style.opacity = "0.6";
    const shifted = document.createElementNS("http://www.w3.org/2000/svg", "g");
    shifted.append(copy);
    node.parentElement.append(shifted);
    return [shifted];
  });
  return {
    draw: (dx, dy) => {
      for (const node of made) node.setAttribute("transform", `translate(${dx} ${dy})`);
    },
    drop: () => {
      for (const node of made) node.remove();
    },
  };
}
