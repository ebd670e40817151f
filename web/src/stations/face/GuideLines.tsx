/** What caught a drag: a line to what it is in line with, and the distance between; equal gaps with their width. */
import { Cased } from "../../canvas/Cased";
import { Tag } from "../../canvas/Tag";
import { shown } from "../../ui/figures";
import type { Guide } from "./snap";
import { type Box, useFace } from "./store";

export function GuideLines({ module, scale }: { module: string; scale: number }) {
  const caught = useFace((s) => s.caught);
  if (caught?.module !== module) return null;
  return (
    <g pointerEvents="none" data-testid="guides">
      {caught.guides.map((guide) =>
        guide.kind === "gap" ? (
          <Gaps key={guide.axis} guide={guide} box={caught.box} scale={scale} />
        ) : (
          <Line key={guide.axis} guide={guide} box={caught.box} scale={scale} />
        ),
      )}
    </g>
  );
}

interface Props {
  guide: Guide;
  box: Box;
  scale: number;
}

/** From what it is in line with to what is dragged. */
function Line({ guide, box, scale }: Props) {
  const upright = guide.axis === "x";
  const [low, high] = upright ? [box.y, box.y + box.height] : [box.x, box.x + box.width];
  const from = Math.min(low, guide.low);
  const to = Math.max(high, guide.high);
  const gap = Math.max(guide.low - high, low - guide.high);
  const middle = guide.low > high ? (guide.low + high) / 2 : (low + guide.high) / 2;
  return (
    <>
      <Cased
        colour="var(--guide)"
        scale={scale}
        d={upright ? `M${guide.line} ${from}V${to}` : `M${from} ${guide.line}H${to}`}
      />
      {guide.kind !== "middle" && gap > 0 && (
        <Tag
          x={upright ? guide.line : middle}
          y={upright ? middle : guide.line}
          scale={scale}
          text={shown(gap)}
        />
      )}
    </>
  );
}

/** The gaps that are alike, each with its width. */
function Gaps({ guide, box, scale }: Props) {
  const level = guide.axis === "x";
  const across = level
    ? (Math.max(guide.low, box.y) + Math.min(guide.high, box.y + box.height)) / 2
    : (Math.max(guide.low, box.x) + Math.min(guide.high, box.x + box.width)) / 2;
  const width = guide.gap ?? 0;
  const tick = 4 / scale;
  return guide.gaps.map((at) => (
    <g key={at}>
      <Cased
        colour="var(--guide)"
        scale={scale}
        d={
          level
            ? `M${at} ${across}h${width}M${at} ${across - tick}v${2 * tick}M${at + width} ${across - tick}v${2 * tick}`
            : `M${across} ${at}v${width}M${across - tick} ${at}h${2 * tick}M${across - tick} ${at + width}h${2 * tick}`
        }
      />
      <Tag
        x={level ? at + width / 2 : across + 16 / scale}
        y={level ? across + 14 / scale : at + width / 2}
        scale={scale}
        text={shown(width)}
      />
    </g>
  ));
}
