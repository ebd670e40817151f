/** What is done to a face beside cutting it: its words, the old holes under it, patches over it, what changed. */
import type { SurfaceView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { ChoiceField } from "../../ui/fields";
import { NotThere } from "../../ui/NotThere";
import { OldHoles } from "./OldHoles";
import { Patches } from "./Patches";
import { useSurface } from "./useSheets";

type Face = SurfaceView["faces"][number];

const WAYS = [
  ["", "engraved"],
  ["filled", "engraved, filled with paint"],
  ["mask", "masked by the film, painted"],
  ["vinyl", "cut in adhesive film"],
  ["film", "printed on film, behind it"],
] as const;

export function Surface() {
  const surface = useSurface();
  if (!surface.data) return <NotThere query={surface} words="Looking at the faces…" />;
  const { faces, changed } = surface.data;
  return (
    <div>
      {faces.map((face) => (
        <Words key={face.id} face={face} />
      ))}
      <OldHoles faces={faces} />
      <Patches surface={surface.data} />
      {changed.length > 0 && (
        <section aria-label="Changed files" className="border-t border-rule px-3.5 py-2.5">
          <h3 className="font-semibold">Files that changed since they were cut</h3>
          <ul className="mt-1 space-y-1.5 text-[12px]">
            {changed.map((c) => (
              <li key={c.piece}>
                <span className="num break-all">{c.files.join(" ")}</span>
                <span className="block text-[11px] text-judge">{c.reasons.join("; ")}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}

function Words({ face }: { face: Face }) {
  const { id } = useDesign();
  const { send } = useChanges(id);
  return (
    <section aria-label={`Words of ${face.name}`} className="border-t border-rule px-3.5 py-2.5">
      <ChoiceField
        label={`${face.name}, its words are`}
        value={face.way ?? ""}
        options={WAYS}
        onCommit={(way) =>
          void send([{ do: "set_lettering", module: face.id, way: way === "" ? null : way }])
        }
      />
      {face.way && <p className="mt-1 text-[11px]/[15px] text-faint">{face.how}.</p>}
    </section>
  );
}
