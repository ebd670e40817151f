/** Fields that keep what is typed until it is right, and say at the field what is wrong. */
import { type ReactNode, useId, useState } from "react";
import { answered, api } from "../api/client";

const BOX =
  "h-8 w-full rounded border border-rule bg-sheet px-2 text-ink placeholder:text-faint focus:border-petrol aria-invalid:border-stop";

interface LengthProps {
  label: string;
  value: number;
  onCommit: (mm: number) => void;
  least?: number;
}

/** A length in mm; takes 3/16in too. Enter or leaving the field commits. */
export function LengthField({ label, value, onCommit, least = 0 }: LengthProps) {
  const id = useId();
  const [text, setText] = useState<string | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const commit = async () => {
    if (text === null) return;
    try {
      const { mm } = await answered(api.GET("/api/quantity/length", { params: { query: { text } } }));
      if (mm < least) throw new Error(`At least ${least} mm`);
      setText(null);
      setWrong(null);
      if (Math.abs(mm - value) > 1e-6) onCommit(mm);
    } catch (error) {
      setWrong(error instanceof Error ? error.message : "Not a length");
    }
  };
  return (
    <Labelled id={id} label={label} wrong={wrong}>
      <span className="relative block">
        <input
          id={id}
          className={`${BOX} num pr-8 text-right`}
          value={text ?? String(Math.round(value * 1000) / 1000)}
          aria-invalid={wrong !== null}
          aria-describedby={wrong ? `${id}-wrong` : undefined}
          onChange={(event) => setText(event.target.value)}
          onBlur={() => void commit()}
          onKeyDown={(event) => {
            if (event.key === "Enter") void commit();
            if (event.key === "Escape") {
              setText(null);
              setWrong(null);
            }
          }}
        />
        <span className="num pointer-events-none absolute top-1.5 right-2 text-faint">mm</span>
      </span>
    </Labelled>
  );
}

interface TextProps {
  label: string;
  value: string;
  onCommit: (text: string) => void;
  needed?: boolean;
  hint?: string;
}

/** A line of text; Enter or leaving the field commits. */
export function TextField({ label, value, onCommit, needed = false, hint = "" }: TextProps) {
  const id = useId();
  const [text, setText] = useState<string | null>(null);
  const wrong = needed && text !== null && text.trim() === "" ? "This cannot be empty" : null;
  const commit = () => {
    if (text === null || wrong) return;
    setText(null);
    if (text.trim() !== value) onCommit(text.trim());
  };
  return (
    <Labelled id={id} label={label} wrong={wrong}>
      <input
        id={id}
        className={BOX}
        value={text ?? value}
        placeholder={hint}
        maxLength={120}
        aria-invalid={wrong !== null}
        onChange={(event) => setText(event.target.value)}
        onBlur={commit}
        onKeyDown={(event) => {
          if (event.key === "Enter") commit();
          if (event.key === "Escape") setText(null);
        }}
      />
    </Labelled>
  );
}

interface ChoiceProps<T extends string> {
  label: string;
  value: T;
  options: readonly (readonly [T, string])[];
  onCommit: (value: T) => void;
}

/** One of a few. */
export function ChoiceField<T extends string>({ label, value, options, onCommit }: ChoiceProps<T>) {
  const id = useId();
  return (
    <Labelled id={id} label={label} wrong={null}>
      <select id={id} className={BOX} value={value} onChange={(event) => onCommit(event.target.value as T)}>
        {options.map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </select>
    </Labelled>
  );
}

function Labelled({
  id,
  label,
  wrong,
  children,
}: {
  id: string;
  label: string;
  wrong: string | null;
  children: ReactNode;
}) {
  return (
    <div>
      <label htmlFor={id} className="mb-0.5 block text-[11px] text-faint">
        {label}
      </label>
      {children}
      {wrong && (
        <p id={`${id}-wrong`} role="alert" className="mt-0.5 text-[11px] text-stop">
          {wrong}
        </p>
      )}
    </div>
  );
}
