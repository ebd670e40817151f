/** Tools for a part of the builder's own: its cut-out from a drawing, and a second control in its hole. */
import { useState } from "react";
import { answered, api, Refused } from "../../api/client";
import type { PartSheet } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { Button } from "../../ui/Button";
import { FileButton } from "../../ui/FileButton";
import { ChoiceField } from "../../ui/fields";
import type { Edit } from "./edit";

interface CombineProps {
  sheet: PartSheet;
  onPick: (part: string) => void;
}

/** The hole as a drawing has it. */
export function CutOut({ edit }: { edit: (changes: Edit) => void }) {
  const { id } = useDesign();
  const [wrong, setWrong] = useState<string | null>(null);
  const read = async (chosen: File) => {
    setWrong(null);
    try {
      const content = await chosen.text();
      const found = await answered(
        api.POST("/api/designs/{design_id}/brief/read-outline", {
          params: { path: { design_id: id }, query: { unit: "as drawn" } },
          body: content as never,
          bodySerializer: (body: unknown) => body as string,
        }),
      );
      const [outline] = found.outlines;
      if (!outline) return setWrong("It holds no closed outline");
      const points = outline.outline.points.map((p) => ({
        ...p,
        x: p.x - outline.width / 2,
        y: p.y - outline.height / 2,
      }));
      edit({ cutout: { kind: "path", points } });
    } catch (error) {
      setWrong(
        error instanceof Refused ? `${chosen.name}: ${error.problem.detail}` : "It cannot be read now",
      );
    }
  };
  return (
    <div className="mt-3">
      <FileButton label="Drawing of the cut-out" accept=".dxf,.svg" onFile={(chosen) => void read(chosen)}>
        Its cut-out from DXF or SVG…
      </FileButton>
      {wrong && (
        <p role="alert" className="mt-1 text-[12px] text-must">
          {wrong}
        </p>
      )}
    </div>
  );
}

/** Two controls in one hole: the other one through this one's shaft. */
export function Combine({ sheet: { part }, onPick }: CombineProps) {
  const { id, design } = useDesign();
  const { send } = useChanges(id);
  const [other, setOther] = useState("encoder-push");
  if (part.mount === "window" || part.members.length > 0) return null;
  const own = design.parts.filter((p) => p.id !== part.id && p.mount !== "window");
  const options = [
    ["encoder-push", "Encoder with push"] as const,
    ["encoder-plain", "Encoder"] as const,
    ["potentiometer", "Potentiometer"] as const,
    ...own
      .filter((p) => !["encoder-push", "encoder-plain", "potentiometer"].includes(p.id))
      .map((p) => [p.id, p.name] as const),
  ];
  return (
    <div className="mt-3 grid grid-cols-[minmax(0,1fr)_auto] items-end gap-2">
      <ChoiceField label="Share its hole with" value={other} options={options} onCommit={setOther} />
      <Button
        className="mb-[3px]"
        onClick={() => {
          const name = `${part.name} with ${options.find(([key]) => key === other)?.[1] ?? other}`.slice(
            0,
            120,
          );
          void send([{ do: "combine_parts", parts: [other, part.id], name }]).then((kept) => {
            const made = kept?.design.parts.at(-1);
            if (made) onPick(made.id);
          });
        }}
      >
        Combine
      </Button>
    </div>
  );
}
