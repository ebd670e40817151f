/** A machine's bed with each module on it as it lies better, and how much it is over. */
import type { BriefView, DesignView } from "../../api/types";
import { shown } from "../../ui/figures";

type Bed = BriefView["beds"][number];

export function Beds({ beds, view }: { beds: readonly Bed[]; view: DesignView }) {
  return (
    <ul className="mt-2 flex flex-wrap gap-3">
      {beds.map((bed) => (
        <OnBed key={bed.module} bed={bed} name={view.modules.find((m) => m.id === bed.module)?.name ?? ""} />
      ))}
    </ul>
  );
}

const SIZE = { width: 104, height: 72 };

function OnBed({ bed, name }: { bed: Bed; name: string }) {
  const { width, height, usable_width, usable_height, over, turn, pieces } = bed;
  const wide = Math.max(width, usable_width, 1);
  const high = Math.max(height, usable_height, 1);
  const s = Math.max(wide / SIZE.width, high / SIZE.height);
  const says =
    pieces === 1
      ? `fits${turn ? " turned" : ""}`
      : `${shown(over)} mm over, ${pieces} pieces${turn ? " if turned" : ""}`;
  return (
    <li className="text-[11px]/[14px]" style={{ width: SIZE.width + 8 }}>
      <svg
        width={SIZE.width + 4}
        height={SIZE.height + 4}
        viewBox={`${-2 * s} ${-2 * s} ${(SIZE.width + 4) * s} ${(SIZE.height + 4) * s}`}
        role="img"
        aria-label={`${name} on this bed: ${says}`}
      >
        <g transform={`translate(0 ${high}) scale(1 -1)`}>
          <rect width={width} height={height} fill="var(--must)" fillOpacity={pieces === 1 ? 0 : 0.35} />
          <rect
            width={Math.min(width, usable_width)}
            height={Math.min(height, usable_height)}
            fill="var(--plate)"
            stroke="var(--faint)"
            strokeWidth={0.8 * s}
          />
          <rect
            width={usable_width}
            height={usable_height}
            fill="none"
            stroke="var(--bed)"
            strokeWidth={1.4 * s}
            strokeDasharray={`${5 * s} ${3 * s}`}
          />
        </g>
      </svg>
      <span className="block truncate">{name}</span>
      <span className={`num block text-[11px] whitespace-normal ${pieces === 1 ? "text-ok" : "text-judge"}`}>
        {pieces === 1 ? "✓ " : "◇ "}
        {says}
      </span>
    </li>
  );
}
