/** Fields that keep what is typed until it is right, and say at the field what is wrong. */
import { type ReactNode, useId, useState } from "react";
import { inField, useLength } from "./useLength";
import { useStill } from "./useStill";

const BOX =
  "h-8 w-full rounded border border-faint bg-sheet px-2 text-ink placeholder:text-faint focus:border-petrol aria-invalid:border-must";

let reading: Promise<unknown> = Promise.resolve();

/**
 * For forms: once every length that was typed has been read, whether each field within an element is understood, and
 * none that is needed is empty. If not, the first that is not takes the focus; it says why.
 */
export async function understood(within: Element | null | undefined): Promise<boolean> {
  await reading;
  for (const field of within?.querySelectorAll<HTMLInputElement>("input[required]") ?? [])
    field.checkValidity();
  await new Promise((drawn) => setTimeout(drawn, 30));
  const wrong = within?.querySelector<HTMLElement>('[aria-invalid="true"]');
  wrong?.focus();
  return !wrong;
}

interface LengthProps {
  label: string;
  value: number;
  onCommit: (mm: number) => void;
  least?: number;
  /** Inside a table whose heading says what it is: the label is only read out. */
  bare?: boolean;
}

/** A length in mm; takes 3/16in too. Enter or leaving the field commits. */
export function LengthField({ label, value, onCommit, least = 0, bare = false }: LengthProps) {
  const id = useId();
  const { text, wrong, setText, commit, giveUp } = useLength(value, least, onCommit);
  return (
    <Labelled id={id} label={label} wrong={wrong} bare={bare}>
      <span className="relative block">
        <input
          id={id}
          className={`${BOX} num text-right ${bare ? "h-7! px-1.5" : "pr-8"}`}
          data-clean={text === null}
          value={text ?? inField(value)}
          aria-invalid={wrong !== null}
          aria-describedby={wrong ? `${id}-wrong` : undefined}
          onChange={(event) => setText(event.target.value)}
          onBlur={() => (reading = commit())}
          onKeyDown={(event) => {
            if (event.key === "Enter") {
              event.preventDefault();
              event.currentTarget.blur();
            }
            if (event.key === "Escape") giveUp();
          }}
        />
        {!bare && <span className="num pointer-events-none absolute top-[7px] right-2 text-faint">mm</span>}
      </span>
    </Labelled>
  );
}

interface TextProps {
  label: string;
  value: string;
  /** May answer later, and throw an error whose words are then said at the field. */
  onCommit: (text: string) => void | Promise<void>;
  needed?: boolean;
  hint?: string;
  /** Letters at the most. */
  longest?: number;
  bare?: boolean;
}

/** A line of text; Enter or leaving the field commits. */
export function TextField({
  label,
  value,
  onCommit,
  needed = false,
  hint = "",
  longest = 120,
  bare = false,
}: TextProps) {
  const id = useId();
  const [text, setText] = useState<string | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const wrong = needed && text !== null && text.trim() === "" ? "This cannot be empty" : refused;
  const commit = async () => {
    if (text === null || (wrong && !refused)) return;
    try {
      if (text.trim() !== value) await onCommit(text.trim());
      setText(null);
      setRefused(null);
    } catch (error) {
      setRefused(error instanceof Error ? error.message : "That cannot be read");
    }
  };
  return (
    <Labelled id={id} label={label} wrong={wrong} bare={bare}>
      <input
        id={id}
        className={`${BOX} ${bare ? "h-7! px-1.5" : ""}`}
        data-clean={text === null}
        value={text ?? value}
        placeholder={hint}
        maxLength={longest}
        required={needed}
        onInvalid={(event) => {
          event.preventDefault(); // it is said beneath
          setText("");
        }}
        aria-invalid={wrong !== null}
        onChange={(event) => setText(event.target.value)}
        onBlur={() => void commit()}
        onKeyDown={(event) => {
          if (event.key === "Enter") {
            event.preventDefault();
            event.currentTarget.blur();
          }
          if (event.key === "Escape") {
            setText(null);
            setRefused(null);
          }
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
  bare?: boolean;
}

/** One of a few. */
export function ChoiceField<T extends string>({
  label,
  value,
  options,
  onCommit,
  bare = false,
}: ChoiceProps<T>) {
  const id = useId();
  return (
    <Labelled id={id} label={label} wrong={null} bare={bare}>
      <select
        id={id}
        className={`${BOX} ${bare ? "h-7! px-1" : ""}`}
        value={value}
        onChange={(event) => onCommit(event.target.value as T)}
      >
        {options.map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </select>
    </Labelled>
  );
}

interface LabelledProps {
  id: string;
  label: string;
  wrong: string | null;
  bare: boolean;
  children: ReactNode;
}

function Labelled({ id, label, wrong, bare, children }: LabelledProps) {
  const said = useStill(wrong); // a button beneath stays under the pointer that presses it
  return (
    <div>
      <label htmlFor={id} className={bare ? "sr-only" : "mb-0.5 block truncate text-[11px] text-faint"}>
        {label}
      </label>
      {children}
      {said && (
        <p id={`${id}-wrong`} role="alert" className="mt-0.5 text-[11px] text-must">
          {said}
        </p>
      )}
    </div>
  );
}

interface FigureProps {
  label: string;
  value: number | null;
  unit?: string;
  least?: number;
  most?: number;
  whole?: boolean;
  bare?: boolean;
  hint?: string;
  /** A form is not sent while it is empty. */
  needed?: boolean;
  /** Called with null when the field is emptied; without it an empty field is refused. */
  onEmpty?: () => void;
  onCommit: (value: number) => void;
}

/** A number that is no length: degrees, volts, pieces, money. Enter or leaving the field commits. */
export function FigureField({
  label,
  value,
  unit = "",
  least = 0,
  most = 1e9,
  whole = false,
  bare = false,
  hint = "",
  needed = false,
  onEmpty,
  onCommit,
}: FigureProps) {
  const id = useId();
  const [text, setText] = useState<string | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const commit = () => {
    if (text === null) return;
    const plain = text.trim().replace(",", ".");
    const figure = Number(plain);
    if (plain === "" && onEmpty) {
      if (value !== null) onEmpty();
    } else if (plain === "" || !Number.isFinite(figure)) return setWrong(`“${text.trim()}” is not a number`);
    else if (figure < least || figure > most) return setWrong(`Between ${least} and ${most}`);
    else if (whole && !Number.isInteger(figure)) return setWrong("A whole number");
    else if (figure !== value) onCommit(figure);
    setText(null);
    setWrong(null);
  };
  return (
    <Labelled id={id} label={unit && !bare ? `${label}, ${unit}` : label} wrong={wrong} bare={bare}>
      <input
        id={id}
        inputMode="decimal"
        className={`${BOX} num text-right ${bare ? "h-7! px-1.5" : ""}`}
        value={text ?? (value === null ? "" : String(Math.round(value * 1000) / 1000))}
        placeholder={hint}
        required={needed}
        onInvalid={(event) => {
          event.preventDefault(); // it is said beneath
          setWrong("A number is needed");
        }}
        aria-invalid={wrong !== null}
        aria-describedby={wrong ? `${id}-wrong` : undefined}
        onChange={(event) => setText(event.target.value)}
        onBlur={commit}
        onKeyDown={(event) => {
          if (event.key === "Enter") event.currentTarget.blur();
          if (event.key === "Escape") {
            setText(null);
            setWrong(null);
          }
        }}
      />
    </Labelled>
  );
}
