/** Three questions: what is it, what must it fit, what can you cut with? Then the function list. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useEffect, useRef, useState } from "react";
import { useLocation } from "wouter";
import { answered, api } from "../api/client";
import type { DesignLine } from "../api/types";
import { Button } from "../ui/Button";
import { understood } from "../ui/fields";
import { type Answers, NewPicture } from "./NewPicture";
import { NewQuestions } from "./NewQuestions";
import { LogoMark } from "./Head";
import { remember } from "./queue";
import { ANEW, useSession } from "./session";

const START: Answers = { name: "", kind: "cab", width: 300, height: 200, depth: 90, machines: [] };

/** A name that no design has yet: “My panel”, “My panel 2”. */
function freeName(designs: readonly DesignLine[]): string {
  const taken = new Set(designs.map((d) => d.name));
  let n = 1;
  const name = () => (n === 1 ? "My panel" : `My panel ${n}`);
  while (taken.has(name())) n += 1;
  return name();
}

export function FirstVisit() {
  const client = useQueryClient();
  const [, navigate] = useLocation();
  const designs = useQuery({ queryKey: ["designs"], queryFn: () => answered(api.GET("/api/designs")) }).data;
  const [own, setAnswers] = useState<Answers>(START);
  const answers = { ...own, name: own.name || freeName(designs ?? []) };
  const latest = useRef(answers);
  useEffect(() => {
    latest.current = answers;
  });
  const [wrong, setWrong] = useState<string | null>(null);
  const change = (changes: Partial<Answers>) => setAnswers((before) => ({ ...before, ...changes }));
  const begin = async (event: FormEvent) => {
    event.preventDefault();
    if (!(await understood(event.currentTarget as Element))) return;
    try {
      const made = await answered(api.POST("/api/designs", { body: latest.current }));
      remember(client, made);
      void client.invalidateQueries({ queryKey: ["designs"] });
      useSession.getState().set({ ...ANEW, scope: "station" });
      navigate(`/d/${made.id}/brief`);
    } catch (error) {
      setWrong(error instanceof Error ? error.message : "That did not work");
    }
  };
  return (
    <main className="grid h-full items-start justify-items-center overflow-auto p-4 pt-[6vh]">
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
        <div className="mt-6 grid grid-cols-[minmax(0,5fr)_minmax(0,4fr)] gap-8 max-[760px]:grid-cols-1">
          <NewQuestions answers={answers} change={change} />
          <NewPicture answers={answers} />
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
          {designs && designs.length > 0 && (
            <button type="button" className="text-petrol underline" onClick={() => navigate("/")}>
              Cancel
            </button>
          )}
        </div>
      </form>
    </main>
  );
}
