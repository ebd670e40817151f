/** Three questions: what is it, what must it fit, what can you cut with? Then the function list. */
import { useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useEffect, useRef, useState } from "react";
import { useLocation } from "wouter";
import { answered, api } from "../api/client";
import type { DesignView, NewMachine } from "../api/types";
import { Button } from "../ui/Button";
import { ChoiceField, fieldsRead, LengthField, TextField } from "../ui/fields";
import { remember } from "./queue";
import { LogoMark } from "./Head";
import { KINDS } from "./kinds";
import { newMachine, PROCESS_NAMES } from "./machines";

interface Answers {
  name: string;
  kind: DesignView["design"]["brief"]["kind"];
  width: number;
  height: number;
  depth: number;
  machines: NewMachine[];
}

export function FirstVisit() {
  const client = useQueryClient();
  const [, navigate] = useLocation();
  const [answers, setAnswers] = useState<Answers>({
    name: "My panel",
    kind: "cab",
    width: 300,
    height: 200,
    depth: 90,
    machines: [],
  });
  const latest = useRef(answers);
  useEffect(() => {
    latest.current = answers;
  });
  const [wrong, setWrong] = useState<string | null>(null);
  const change = (changes: Partial<Answers>) => setAnswers((before) => ({ ...before, ...changes }));
  const begin = async (event: FormEvent) => {
    event.preventDefault();
    await fieldsRead();
    try {
      const made = await answered(api.POST("/api/designs", { body: latest.current }));
      remember(client, made);
      navigate(`/d/${made.id}/brief`);
    } catch (error) {
      setWrong(error instanceof Error ? error.message : "That did not work");
    }
  };
  return (
    <main className="grid h-full place-items-center overflow-auto p-4">
      <form
        className="w-full max-w-3xl rounded border border-rule bg-sheet p-6"
        onSubmit={(event) => void begin(event)}
      >
        <div className="flex items-start gap-4">
          <LogoMark />
          <div>
            <h1 className="text-[18px]">New panel</h1>
            <p className="mt-1 text-faint">
              Three questions. Then list what it has to do; holes, layers, wires and pins follow from that.
            </p>
          </div>
        </div>
        <div className="mt-6 grid grid-cols-[minmax(0,5fr)_minmax(0,4fr)] gap-8">
          <Questions answers={answers} change={change} />
          <Picture answers={answers} />
        </div>
        {answers.kind === "aircraft" && (
          <p className="mt-3 border-l-[3px] border-judge pl-3 text-judge">
            For planning only. A real aircraft answers to its authority's rules and to licensed practice.
          </p>
        )}
        {wrong && (
          <p role="alert" className="mt-3 text-must">
            {wrong}
          </p>
        )}
        <div className="mt-6 flex items-center gap-3">
          <Button look="solid" type="submit">
            Create the panel
          </Button>
          <a href="/" className="text-petrol underline">
            Back
          </a>
        </div>
      </form>
    </main>
  );
}

interface Props {
  answers: Answers;
  change: (changes: Partial<Answers>) => void;
}

function Questions({ answers, change }: Props) {
  const toggle = (kind: NewMachine["kind"]) => {
    const there = answers.machines.some((m) => m.kind === kind);
    const machines = there
      ? answers.machines.filter((m) => m.kind !== kind)
      : [...answers.machines, newMachine(kind)];
    change({ machines });
  };
  const size = (machine: NewMachine, changes: Partial<NewMachine>) =>
    change({ machines: answers.machines.map((m) => (m === machine ? { ...m, ...changes } : m)) });
  return (
    <div className="flex flex-col gap-5">
      <fieldset>
        <legend className="font-semibold">
          <span className="num pr-2 text-faint">1</span>What is it?
        </legend>
        <div className="mt-2 grid grid-cols-2 gap-3">
          <TextField
            label="What is it called?"
            value={answers.name}
            needed
            onCommit={(name) => change({ name })}
          />
          <ChoiceField
            label="What kind of panel?"
            value={answers.kind}
            options={KINDS}
            onCommit={(kind) => change({ kind })}
          />
        </div>
      </fieldset>
      <fieldset>
        <legend className="font-semibold">
          <span className="num pr-2 text-faint">2</span>What must it fit?
        </legend>
        <div className="mt-2 grid grid-cols-3 gap-3">
          <LengthField
            label="Opening, width"
            value={answers.width}
            least={10}
            onCommit={(width) => change({ width })}
          />
          <LengthField
            label="Opening, height"
            value={answers.height}
            least={10}
            onCommit={(height) => change({ height })}
          />
          <LengthField
            label="Free depth behind the front"
            value={answers.depth}
            least={1}
            onCommit={(depth) => change({ depth })}
          />
        </div>
      </fieldset>
      <fieldset>
        <legend className="font-semibold">
          <span className="num pr-2 text-faint">3</span>What can you cut with?
        </legend>
        <div className="mt-2 flex flex-wrap gap-x-5 gap-y-1">
          {PROCESS_NAMES.map(([kind, name]) => (
            <label key={kind} className="flex items-center gap-2">
              <input
                type="checkbox"
                checked={answers.machines.some((m) => m.kind === kind)}
                onChange={() => toggle(kind)}
              />
              {name}
            </label>
          ))}
        </div>
        {answers.machines.map((m) => (
          <div key={m.kind} className="mt-2 grid grid-cols-[minmax(0,2fr)_minmax(0,2fr)_minmax(0,2fr)] gap-3">
            <span className="self-end pb-2 text-[12px] text-faint">{m.name}, its bed</span>
            <LengthField
              label="Width"
              value={m.bed_width}
              least={10}
              onCommit={(bed_width) => size(m, { bed_width })}
            />
            <LengthField
              label="Height"
              value={m.bed_height}
              least={10}
              onCommit={(bed_height) => size(m, { bed_height })}
            />
          </div>
        ))}
      </fieldset>
    </div>
  );
}

/** The opening and the beds at one scale. */
function Picture({ answers }: { answers: Answers }) {
  const { width, height, machines } = answers;
  const widest = Math.max(width, ...machines.map((m) => m.bed_width));
  const highest = Math.max(height, ...machines.map((m) => m.bed_height));
  const s = Math.max(widest / 260, highest / 260);
  return (
    <svg
      viewBox={`${-20 * s} ${-30 * s} ${widest + 40 * s} ${highest + 60 * s}`}
      className="max-h-80 w-full self-center rounded bg-desk p-2"
      role="img"
      aria-label={`Opening ${width} by ${height} mm${machines.length ? " and the beds" : ""}`}
    >
      <g transform={`translate(0 ${highest}) scale(1 -1)`}>
        <rect width={width} height={height} rx={3} fill="#2D3639" />
        {machines.map((m) => (
          <rect
            key={m.kind}
            width={m.bed_width}
            height={m.bed_height}
            fill="none"
            stroke="#D9542B"
            strokeWidth={1.4 * s}
            strokeDasharray={`${6 * s} ${3 * s}`}
          />
        ))}
      </g>
      <g fontFamily="var(--font-mono)" fontSize={11 * s} fill="var(--ink)" textAnchor="middle">
        <text x={width / 2} y={highest + 18 * s}>
          {width} × {height}
        </text>
        {machines.map((m, n) => (
          <text key={m.kind} x={m.bed_width / 2} y={highest - m.bed_height - (6 + 12 * n) * s} fill="#B3401F">
            {m.name}
          </text>
        ))}
      </g>
    </svg>
  );
}
