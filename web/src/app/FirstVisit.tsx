/** The first questions: what is it, and what must it fit? Then the function list. */
import { useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { useLocation } from "wouter";
import { answered, api } from "../api/client";
import { Button } from "../ui/Button";
import { ChoiceField, LengthField, TextField } from "../ui/fields";
import { remember } from "./design";
import { LogoMark } from "./Head";
import { KINDS } from "./kinds";

export function FirstVisit() {
  const client = useQueryClient();
  const [, navigate] = useLocation();
  const [answers, setAnswers] = useState({
    name: "My panel",
    kind: "cab",
    width: 300,
    height: 200,
    depth: 90,
  });
  const [wrong, setWrong] = useState<string | null>(null);
  const change = (changes: Partial<typeof answers>) => setAnswers((before) => ({ ...before, ...changes }));
  const begin = async (event: FormEvent) => {
    event.preventDefault();
    try {
      const made = await answered(api.POST("/api/designs", { body: answers }));
      remember(client, made);
      navigate(`/d/${made.id}/brief`);
    } catch (error) {
      setWrong(error instanceof Error ? error.message : "That did not work");
    }
  };
  return (
    <main className="grid h-full place-items-center overflow-auto">
      <form
        className="w-full max-w-md rounded border border-rule bg-sheet p-6"
        onSubmit={(event) => void begin(event)}
      >
        <LogoMark />
        <h1 className="mt-3 text-[18px]">Begin a panel</h1>
        <p className="mt-1 text-faint">
          Say what it is and what it must fit. Then list what it has to do; holes, layers, wires and pins
          follow from that.
        </p>
        <div className="mt-5 grid grid-cols-2 gap-3">
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
        {answers.kind === "aircraft" && (
          <p className="mt-3 border-l-[3px] border-look pl-3 text-look">
            For planning only. A real aircraft answers to its authority's rules and to licensed practice.
          </p>
        )}
        {wrong && (
          <p role="alert" className="mt-3 text-stop">
            {wrong}
          </p>
        )}
        <div className="mt-5 flex items-center gap-3">
          <Button look="solid" type="submit">
            To the function list
          </Button>
          <a href="/" className="text-petrol underline">
            Back
          </a>
        </div>
      </form>
    </main>
  );
}
