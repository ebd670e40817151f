/** Least over mean as a bar, the limit marked. */
const FILL = { must: "fill-must", judge: "fill-judge", ok: "fill-ok" } as const;

export function EvenBar({ share, limit, tone }: { share: number; limit: number; tone: keyof typeof FILL }) {
  return (
    <svg viewBox="0 0 56 12" className="h-3 w-14" aria-hidden="true">
      <rect x={0} y={4} width={56} height={5} className="fill-rule" />
      <rect x={0} y={4} width={56 * Math.min(1, share)} height={5} className={FILL[tone]} />
      <path d={`M${56 * limit} 0V12`} className="stroke-ink" strokeWidth={1.5} />
    </svg>
  );
}
