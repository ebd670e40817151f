import type { ButtonHTMLAttributes } from "react";

interface Props extends ButtonHTMLAttributes<HTMLButtonElement> {
  look?: "solid" | "line" | "quiet";
  keys?: string;
}

const LOOK = {
  solid: "border-ink bg-ink text-sheet hover:opacity-90",
  line: "border-ink bg-sheet text-ink hover:bg-wash",
  quiet: "border-transparent text-faint hover:text-ink hover:bg-wash",
} as const;

/** A button with the key that does the same. */
export function Button({ look = "line", keys, children, className = "", ...rest }: Props) {
  return (
    <button
      type="button"
      className={`inline-flex min-h-[26px] items-center gap-1.5 rounded border px-2 py-0.5 text-left text-[12px] disabled:opacity-45 ${LOOK[look]} ${className}`}
      {...rest}
    >
      <span>{children}</span>
      {keys && <kbd className="num text-[11px] opacity-75">{keys}</kbd>}
    </button>
  );
}
