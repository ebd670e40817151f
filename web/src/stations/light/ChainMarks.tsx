/** The chain of addressable strips behind: which LEDs each holds, in their order, and where power comes in. */
import type { LightView } from "../../api/types";
import { Tag } from "../../canvas/Tag";

type Chain = NonNullable<LightView["chain"]>;

export function ChainMarks({ light, chain, scale }: { light: LightView; chain: Chain; scale: number }) {
  return (
    <g pointerEvents="none">
      {chain.links.map((link) => {
        const strip = light.light.strips.find((one) => one.id === link.strip);
        if (!strip) return null;
        const long = Math.hypot(strip.x2 - strip.x, strip.y2 - strip.y) || 1;
        const along = { x: (strip.x2 - strip.x) / long, y: (strip.y2 - strip.y) / long };
        const tip = { x: strip.x2 + (along.x * 9) / scale, y: strip.y2 + (along.y * 9) / scale };
        const wing = 5 / scale;
        const back = { x: tip.x - along.x * wing, y: tip.y - along.y * wing };
        return (
          <g key={link.strip}>
            <path
              d={`M${back.x - along.y * wing} ${back.y + along.x * wing}L${tip.x} ${tip.y}L${back.x + along.y * wing} ${back.y - along.x * wing}`}
              fill="none"
              stroke="var(--strip-edge)"
              strokeWidth={1.6 / scale}
            />
            <Tag
              x={(strip.x + strip.x2) / 2}
              y={(strip.y + strip.y2) / 2 + 16 / scale}
              scale={scale}
              text={`${link.first} to ${link.last}`}
            />
          </g>
        );
      })}
      {chain.feeds.map((feed) => (
        <g key={feed.number}>
          <circle
            cx={feed.x}
            cy={feed.y}
            r={7 / scale}
            fill="none"
            stroke="var(--night-mark)"
            strokeWidth={1.6 / scale}
          />
          <Tag x={feed.x} y={feed.y - 18 / scale} scale={scale} text={`feed ${feed.number}`} />
        </g>
      ))}
    </g>
  );
}
