/** A part on its way from the tray: it follows the pointer at once, over whatever, until it is let go over a plate. */
import { useDesign } from "../../app/design";
import { frontOf } from "../../panel/PartOnPanel";
import { PartFront } from "../../panel/shapes";
import { useFace } from "./store";

export function Carried({ scale }: { scale: number }) {
  const carry = useFace((s) => s.carry);
  const { design, lenses } = useDesign();
  const part = carry && design.parts.find((p) => p.id === carry.fn.part);
  if (!carry || !part) return null;
  return (
    <svg
      className="pointer-events-none fixed top-0 left-0 z-20 overflow-visible"
      width="1"
      height="1"
      aria-hidden="true"
      data-testid="carried"
      style={{ transform: `translate(${carry.x}px, ${carry.y}px)`, opacity: carry.over ? 0.9 : 0.6 }}
    >
      <g transform={`scale(${scale} ${-scale})`}>
        <PartFront front={frontOf(part, undefined, lenses[carry.fn.id])} />
      </g>
    </svg>
  );
}
