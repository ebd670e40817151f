/** The reference picture: loaded, mirrored, scaled by a known length, squared by four points, traced and compared. */
import { useState } from "react";
import { answered, api, Refused } from "../../api/client";
import type { Command, ModuleView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { Button } from "../../ui/Button";
import { FileButton } from "../../ui/FileButton";
import { shown } from "../../ui/figures";
import { useLying } from "./ReferencePicture";
import { Steps } from "./PictureSteps";
import { useViews } from "./useViews";
import type { Reference, ReferenceLies, SetReference } from "./viewTypes";
import { Holes } from "./PictureHoles";

export function Pictures({ module }: { module: ModuleView }) {
  const { id } = useDesign();
  const { send } = useChanges(id);
  const seen = useViews(module.id, true);
  const { reference, lies } = useLying(module, seen.data);
  const set: SetReference = (changes) => {
    if (reference) void send([{ do: "edit_reference", reference: reference.id, ...changes }]);
  };
  return (
    <div className="min-h-0 flex-1 overflow-y-auto p-3.5 text-[12px]">
      {!reference && <Load module={module} />}
      {reference && (
        <>
          <Shown reference={reference} set={set} />
          <Steps module={module} reference={reference} set={set} />
          {lies?.known && <Worth lies={lies} />}
          <Holes module={module} reference={reference} lies={lies} />
          <Button
            look="quiet"
            className="mt-3 -ml-2"
            onClick={() => void send([{ do: "remove_reference", reference: reference.id }])}
          >
            Remove the picture
          </Button>
        </>
      )}
    </div>
  );
}

function Load({ module }: { module: ModuleView }) {
  const { id } = useDesign();
  const { send } = useChanges(id);
  const [wrong, setWrong] = useState<string | null>(null);
  const take = async (chosen: File) => {
    setWrong(null);
    try {
      const kept = await answered(
        api.POST("/api/pictures", {
          body: chosen as never,
          bodySerializer: (body: unknown) => body as Blob,
        }),
      );
      const command: Command = {
        do: "add_reference",
        module: module.id,
        picture: kept.picture,
        width: kept.width,
        height: kept.height,
        mirrored: false,
        hidden: false,
        opacity: 0.6,
        x: 0,
        y: 0,
        points: [],
        circles: [],
      };
      await send([command]);
    } catch (error) {
      setWrong(
        error instanceof Refused ? `${chosen.name}: ${error.problem.detail}` : "It cannot be kept now",
      );
    }
  };
  return (
    <>
      <p className="text-faint">
        A photograph or scan of an old panel, or of what it must match. PNG or JPEG, up to 8 MB.
      </p>
      <FileButton
        label="Reference picture"
        accept="image/png,image/jpeg"
        look="solid"
        className="mt-2"
        onFile={(chosen) => void take(chosen)}
      >
        Add a picture…
      </FileButton>
      {wrong && (
        <p role="alert" className="mt-1 text-must">
          {wrong}
        </p>
      )}
    </>
  );
}

function Shown({ reference, set }: { reference: Reference; set: SetReference }) {
  return (
    <div className="flex flex-col gap-1.5">
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          checked={reference.mirrored}
          onChange={(event) => set({ mirrored: event.target.checked })}
        />
        mirrored: taken from behind
      </label>
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          checked={reference.hidden}
          onChange={(event) => set({ hidden: event.target.checked })}
        />
        hidden
      </label>
      <label className="block">
        <span className="text-[11px] text-faint">Opacity</span>
        <input
          type="range"
          min={0}
          max={1}
          step={0.1}
          className="w-full accent-petrol"
          value={reference.opacity}
          onChange={(event) => set({ opacity: Number(event.target.value) })}
        />
      </label>
    </div>
  );
}

/** What the picture is worth, in figures. */
function Worth({ lies }: { lies: ReferenceLies }) {
  return (
    <dl className="mt-3 border-t border-rule pt-2">
      <Line
        words={lies.squared ? "squared, one pixel makes" : "scaled, one pixel makes over its width"}
        value={lies.one_pixel}
        places={2}
      />
      {lies.squared && <Line words="points miss by" value={lies.residual} places={2} bad={lies.misses} />}
      {lies.check != null && (
        <Line words="second length is off by" value={lies.check} places={2} bad={lies.check_misses} />
      )}
    </dl>
  );
}

function Line({
  words,
  value,
  places,
  bad = false,
}: {
  words: string;
  value: number;
  places: number;
  bad?: boolean;
}) {
  return (
    <div className="flex justify-between gap-2">
      <dt>{words}</dt>
      <dd className={`num ${bad ? "font-semibold text-must" : ""}`}>{shown(value, places)} mm</dd>
    </div>
  );
}
