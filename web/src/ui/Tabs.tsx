interface Props<T extends string> {
  label: string;
  tabs: readonly (readonly [T, string])[];
  now: T;
  onChange: (tab: T) => void;
  className?: string;
}

/** Tabs in a row; arrow keys go from one to the next. */
export function Tabs<T extends string>({ label, tabs, now, onChange, className = "" }: Props<T>) {
  const step = (by: number) => {
    const at = tabs.findIndex(([key]) => key === now);
    const next = tabs[(at + by + tabs.length) % tabs.length];
    if (next) onChange(next[0]);
  };
  return (
    <div
      role="tablist"
      aria-label={label}
      className={`flex h-9 shrink-0 items-end gap-4 overflow-x-auto px-4 text-[12px] ${className}`}
      onKeyDown={(event) => {
        const by = event.key === "ArrowRight" ? 1 : event.key === "ArrowLeft" ? -1 : 0;
        if (!by) return;
        event.preventDefault();
        event.stopPropagation();
        step(by);
        const row = event.currentTarget;
        requestAnimationFrame(() => row.querySelector<HTMLElement>("[aria-selected=true]")?.focus());
      }}
    >
      {tabs.map(([key, words]) => (
        <button
          key={key}
          type="button"
          role="tab"
          aria-selected={key === now}
          tabIndex={key === now ? 0 : -1}
          className={`border-b-2 pb-0.5 whitespace-nowrap ${key === now ? "border-petrol font-semibold" : "border-transparent text-faint hover:text-ink"}`}
          onClick={() => onChange(key)}
        >
          {words}
        </button>
      ))}
    </div>
  );
}
