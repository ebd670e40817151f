/** A lamp on or off in the picture of the night. */
import { flipLamp, useLightState } from "./store";

export function LitButton({ of, name }: { of: string; name: string }) {
  const on = useLightState(({ lit }) => lit === "all" || lit.includes(of));
  return (
    <button
      type="button"
      aria-pressed={on}
      aria-label={`Lit: ${name}`}
      title={on ? "Put it out" : "Light it"}
      className="grid size-6 shrink-0 place-items-center rounded hover:bg-wash"
      onClick={() => flipLamp(of)}
    >
      <svg width="14" height="14" viewBox="0 0 14 14" aria-hidden="true">
        <circle
          cx="7"
          cy="7"
          r="4.5"
          fill={on ? "var(--petrol)" : "none"}
          stroke={on ? "var(--petrol)" : "var(--faint)"}
          strokeWidth="1.5"
        />
        {on && (
          <path
            d="M7 0v1.5M7 12.5V14M0 7h1.5M12.5 7H14"
            stroke="var(--petrol)"
            strokeWidth="1.5"
            fill="none"
          />
        )}
      </svg>
    </button>
  );
}
