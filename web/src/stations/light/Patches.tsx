/** Hot spots with how many times the usual light, and dark rings round bodies with the share of them that is dark. */
import type { LightView } from "../../api/types";
import { Tag } from "../../canvas/Tag";
import { shown } from "../../ui/figures";

type Night = NonNullable<LightView["night"]>;

export function Patches({ night, scale }: { night: Night; scale: number }) {
  return (
    <g pointerEvents="none">
      {night.hot.map((spot) => (
        <g key={`${spot.x} ${spot.y}`}>
          <path
            d={`M${spot.x - 5 / scale} ${spot.y}h${10 / scale}M${spot.x} ${spot.y - 5 / scale}v${10 / scale}`}
            stroke="var(--tag)"
            strokeWidth={1.6 / scale}
          />
          <Tag x={spot.x} y={spot.y + 14 / scale} scale={scale} text={`${shown(spot.times)} ×`} />
        </g>
      ))}
      {night.rings.map((ring) => (
        <Tag
          key={ring.function}
          x={ring.x}
          y={ring.y}
          scale={scale}
          text={`${Math.round(ring.dark * 100)} %`}
        />
      ))}
    </g>
  );
}
