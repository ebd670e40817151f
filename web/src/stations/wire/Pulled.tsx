/** A line on its way to another pin: from its terminal to the pointer, with the pin that it would be given. */
import type { ModuleBehind } from "../../api/types";
import { Tag } from "../../canvas/Tag";
import type { Layout } from "./layout";
import type { Pull } from "./usePull";

interface Props {
  module: ModuleBehind;
  layout: Layout;
  pull: Pull;
  scale: number;
}

export function Pulled({ module, layout, pull, scale }: Props) {
  const end = module.ends.find((one) => one.line === pull.line);
  return (
    <g pointerEvents="none">
      {end && (
        <path
          d={`M${end.x + layout.module.x} ${end.y + layout.module.y}L${pull.x} ${pull.y}`}
          stroke="var(--guide)"
          strokeWidth={2 / scale}
          strokeDasharray={`${6 / scale} ${4 / scale}`}
        />
      )}
      <Tag
        x={pull.x}
        y={pull.y + 16 / scale}
        scale={scale}
        text={pull.pin ? `pin ${pull.pin}` : "to a pin"}
        status
      />
    </g>
  );
}
