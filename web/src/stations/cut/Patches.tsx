/** Small plates over openings that are not wanted any more, and labels for what came later. */
import type { DesignView, SurfaceView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { useTrade } from "../../app/trade";
import { Button } from "../../ui/Button";
import { ChoiceField, LengthField, TextField } from "../../ui/fields";
import { shown } from "../../ui/figures";
import { TakeAway } from "../../ui/TakeAway";

type Patch = SurfaceView["patches"][number];

const PLAIN = { material: "acrylic", thickness: 1.5, text: "", screws: false } as const;

export function Patches({ surface }: { surface: SurfaceView }) {
  const view = useDesign();
  const { send } = useChanges(view.id);
  const roomy = surface.faces.filter((face) => face.free.length === 2);
  return (
    <section aria-label="Patches" className="border-t border-rule px-3.5 py-2.5">
      <h3 className="font-semibold">Patches and labels</h3>
      {surface.patches.length === 0 && surface.abandoned.length === 0 && (
        <p className="mt-0.5 text-[11px]/[15px] text-faint">
          A small plate hides an opening that is not wanted any more; with words it labels what came later. It
          is cut with the other pieces.
        </p>
      )}
      <Abandoned surface={surface} />
      {surface.patches.map((patch) => (
        <OnePatch key={patch.id} patch={patch} view={view} />
      ))}
      {roomy.map((face) => (
        <Button
          key={face.id}
          className="mt-1.5 mr-1.5"
          onClick={() => {
            const [x = 0, y = 0] = face.free;
            const label = { x, y, width: 30, height: 12, ...PLAIN, text: "LABEL" };
            void send([{ do: "add_patch", module: face.id, ...label }]);
          }}
        >
          A label on {face.name.toLowerCase()}
        </Button>
      ))}
    </section>
  );
}

function OnePatch({ patch, view }: { patch: Patch; view: DesignView }) {
  const { send } = useChanges(view.id);
  const trade = useTrade();
  const edit = (what: Partial<Omit<Patch, "id" | "module" | "edges" | "letters" | "cap">>) =>
    void send([{ do: "edit_patch", patch: patch.id, ...what }]);
  const module = view.design.modules.find((m) => m.id === patch.module);
  return (
    <div
      role="group"
      aria-label={`Patch ${patch.id}`}
      className="mt-2 rounded border border-rule bg-card p-2"
    >
      <div className="flex items-center justify-between text-[12px]">
        <span>
          {module?.name ?? patch.module},{" "}
          <span className="num">
            {shown(patch.width)} × {shown(patch.height)} × {shown(patch.thickness)}
          </span>
        </span>
        <TakeAway
          what={patch.text || patch.id}
          onTake={() => void send([{ do: "remove_patch", patch: patch.id }])}
        />
      </div>
      <Picture patch={patch} />
      <div className="grid grid-cols-2 gap-1.5">
        <LengthField label="Middle, x" value={patch.x} least={-1000} onCommit={(x) => edit({ x })} />
        <LengthField label="Middle, y" value={patch.y} least={-1000} onCommit={(y) => edit({ y })} />
        <LengthField label="Wide" value={patch.width} least={4} onCommit={(width) => edit({ width })} />
        <LengthField label="High" value={patch.height} least={4} onCommit={(height) => edit({ height })} />
        <TextField label="Words on it" value={patch.text} onCommit={(text) => edit({ text })} />
        <LengthField
          label="Thick"
          value={patch.thickness}
          least={0.2}
          onCommit={(thickness) => edit({ thickness })}
        />
        <ChoiceField
          label="Of"
          value={patch.material}
          options={(trade?.materials ?? []).map((m) => [m.id, m.name] as const)}
          onCommit={(material) => edit({ material })}
        />
        <ChoiceField
          label="Held by"
          value={patch.screws ? "screws" : "glue"}
          options={
            [
              ["glue", "glue"],
              ["screws", "M2.5 screws"],
            ] as const
          }
          onCommit={(how) => edit({ screws: how === "screws" })}
        />
      </div>
    </div>
  );
}

/** A patch as it is cut, its words as high as they fit. */
function Picture({ patch }: { patch: Patch }) {
  return (
    <svg
      className="my-1.5 max-h-14 w-full"
      viewBox={`-1 -1 ${patch.width + 2} ${patch.height + 2}`}
      role="img"
      aria-label={patch.cap > 0 ? `Patch ${patch.text}, letters ${shown(patch.cap)} mm high` : "Patch"}
    >
      <g transform={`matrix(1 0 0 -1 0 ${patch.height})`}>
        <path
          d={patch.edges}
          fill="var(--sheet)"
          fillRule="evenodd"
          stroke="var(--ink)"
          vectorEffect="non-scaling-stroke"
        />
        <path d={patch.letters} fill="var(--ink)" fillRule="nonzero" />
      </g>
    </svg>
  );
}

/** A patch over an opening that nothing uses any more. */
function Abandoned({ surface }: { surface: SurfaceView }) {
  const { id } = useDesign();
  const { send } = useChanges(id);
  return (
    <ul className="mt-1 space-y-1.5">
      {surface.abandoned.map((a) => (
        <li key={`${a.module} ${a.name} ${a.x}`}>
          <p className="text-[12px]">
            {a.module_name}: the opening of {a.name} at{" "}
            <span className="num">
              {shown(a.x)}, {shown(a.y)}
            </span>{" "}
            is cut, and nothing is there any more
          </p>
          {a.width > 0 ? (
            <Button
              onClick={() =>
                void send([
                  {
                    do: "add_patch",
                    module: a.module,
                    x: a.x,
                    y: a.y,
                    width: a.width,
                    height: a.height,
                    ...PLAIN,
                  },
                ])
              }
            >
              Cover it, {shown(a.width)} × {shown(a.height)}
            </Button>
          ) : (
            <p className="text-[11px] text-faint">
              Something else is too near for a patch: cut the plate again.
            </p>
          )}
        </li>
      ))}
    </ul>
  );
}
