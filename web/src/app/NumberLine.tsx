/** What is selected, its exact place and surroundings, and the line to type into. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answered, api } from "../api/client";
import type { DesignView, Fn, Surroundings } from "../api/types";
import { many, shown } from "../ui/figures";
import { useChanges, useDesign } from "./design";
import { forgetLine, useQueue } from "./queue";
import { useSession } from "./session";

export function NumberLine() {
  const view = useDesign();
  const selection = useSession((s) => s.selection);
  const chosen = view.design.functions.filter((f) => selection.includes(f.id));
  const lead = chosen.find((f) => f.id === selection.find((id) => chosen.some((c) => c.id === id)));
  return (
    <footer className="col-span-3 flex items-center gap-4 border-t border-rule bg-card overflow-hidden pr-3 pl-[90px] text-[12px] max-[900px]:pl-3">
      <Selected view={view} chosen={chosen} lead={lead} />
      <span className="flex-1" />
      {lead?.place && <LineField view={view} selection={selection} />}
    </footer>
  );
}

function Selected({ view, chosen, lead }: { view: DesignView; chosen: Fn[]; lead: Fn | undefined }) {
  const live = useSession((s) => s.around);
  const selection = useSession((s) => s.selection);
  const doing = useSession((s) => s.doing);
  const around = useAround(view, lead);
  if (doing) {
    return (
      <>
        <b role="status" className="max-w-80 truncate">
          {doing}
        </b>
        {live && <Around around={live} turn={lead?.place?.turn ?? 0} />}
      </>
    );
  }
  const drawn = view.design.graphics.filter((g) => selection.includes(g.id));
  if (chosen.length + drawn.length > 1 || (!lead && drawn.length > 0)) {
    return <Several chosen={chosen} graphics={drawn} />;
  }
  if (!lead) {
    return (
      <span className="text-faint">Nothing selected. Click a part, or press / to find one by name.</span>
    );
  }
  const part = view.design.parts.find((p) => p.id === lead.part);
  return (
    <>
      <b className="max-w-52 truncate">{lead.name}</b>
      <span className="max-w-56 truncate text-faint">{part?.name ?? (lead.want || "no part yet")}</span>
      {lead.place && <Place x={live?.x ?? lead.place.x} y={live?.y ?? lead.place.y} turn={lead.place.turn} />}
      {around && <Near around={around} />}
    </>
  );
}

/** Several parts, functions without a place, graphics, or both. */
function Several({ chosen, graphics }: { chosen: Fn[]; graphics: DesignView["design"]["graphics"] }) {
  const [only] = graphics;
  const parts = chosen.length;
  const placed = chosen.filter((f) => f.place != null).length;
  const words = [
    parts > 0 ? many(parts, placed === parts ? "part" : "function") : "",
    graphics.length > 0 ? many(graphics.length, "graphic") : "",
  ];
  if (parts === 0 && graphics.length === 1 && only)
    return (
      <>
        <b className="max-w-72 truncate">{only.text || only.kind}</b>
        <span className="text-faint">{only.kind}, arrows move it, Delete removes it</span>
      </>
    );
  return (
    <span>
      <b>{words.filter(Boolean).join(" and ")}</b>{" "}
      <span className="text-faint">
        {placed > 1
          ? "type row, column or pitch 25.4, or nudge with the arrows"
          : placed + graphics.length > 0 && "drag them, or nudge with the arrows"}
      </span>
    </span>
  );
}

function Around({ around, turn }: { around: Surroundings; turn: number }) {
  return (
    <>
      <Place x={around.x} y={around.y} turn={turn} />
      <Near around={around} />
    </>
  );
}

/** The nearest neighbour, and the edge. */
function Near({ around }: { around: Surroundings }) {
  const near = around.neighbours[0];
  return (
    <>
      {near && (
        <span className="flex gap-1.5">
          <span className="text-faint">nearest</span>
          <span className={`num max-w-44 truncate ${near.short ? "font-semibold text-must" : ""}`}>
            {shown(near.gap)} {near.name}
          </span>
        </span>
      )}
      <span className="flex gap-1.5">
        <span className="text-faint">edge</span>
        <span className="num">{shown(around.edge.gap)}</span>
      </span>
    </>
  );
}

function Place({ x, y, turn }: { x: number; y: number; turn: number }) {
  return (
    <span className="num flex gap-4">
      <span>x {shown(x)}</span>
      <span>y {shown(y)}</span>
      <span>{shown(turn, turn % 1 ? 1 : 0)}°</span>
    </span>
  );
}

/** What is round the selected part: live while it is dragged, else as it stands. */
function useAround(view: DesignView, lead: Fn | undefined) {
  const live = useSession((s) => s.around);
  const still = useQuery({
    queryKey: ["around", view.id, view.revision, lead?.id],
    enabled: lead?.place != null,
    gcTime: 10_000,
    retry: false,
    queryFn: () =>
      answered(
        api.POST("/api/designs/{design_id}/face/probe", {
          params: { path: { design_id: view.id } },
          body: { base: view.revision, lead: lead?.id ?? "", commands: [] },
        }),
      ),
  });
  return live ?? (lead?.place ? still.data : undefined);
}

function LineField({ view, selection }: { view: DesignView; selection: string[] }) {
  const [text, setText] = useState("");
  const { type } = useChanges(view.id);
  const wrong = useQueue((s) => s.line);
  const commit = async () => {
    if (text.trim() && (await type(text, selection))) setText("");
  };
  return (
    <label className="relative flex items-center gap-3">
      <span className="sr-only">Number line</span>
      {wrong && (
        <span
          role="alert"
          id="line-wrong"
          className="absolute right-0 bottom-[34px] w-72 rounded border border-must bg-sheet px-2.5 py-1.5 text-must"
        >
          {wrong}
        </span>
      )}
      <input
        id="number-line"
        className="num h-[26px] w-[190px] max-[900px]:w-[120px] rounded border border-petrol bg-sheet px-2 placeholder:text-faint"
        placeholder="x+2.7  y 38  gap 19"
        value={text}
        maxLength={200}
        autoComplete="off"
        aria-invalid={wrong !== null}
        aria-describedby={wrong ? "line-wrong" : undefined}
        onChange={(event) => {
          setText(event.target.value);
          forgetLine();
        }}
        onBlur={forgetLine}
        onKeyDown={(event) => {
          if (event.key === "Enter") void commit();
          if (event.key === "Escape") {
            setText("");
            event.currentTarget.blur();
          }
        }}
      />
      <span className="text-faint max-[900px]:hidden">Enter moves it</span>
    </label>
  );
}
