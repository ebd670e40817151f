/** The bench round every station: rail, head, worklist, number line, and what is laid over them. */
import { Suspense } from "react";
import { Awaited } from "../ui/NotThere";
import { Guarded } from "../ui/Guarded";
import { useDesign } from "./design";
import { Dialogs } from "./Dialogs";
import { Head } from "./Head";
import { useKeys } from "./keys";
import { NumberLine } from "./NumberLine";
import { Rail } from "./Rail";
import { Said } from "./Said";
import { useSession } from "./session";
import type { Station } from "./stations";
import { Folded, Worklist } from "./Worklist";

/** What stands in the middle at each station. */
export type Views = Readonly<Record<Station["id"], React.ComponentType>>;

export function Frame({ station, views }: { station: Station["id"]; views: Views }) {
  useKeys(station);
  const view = useDesign();
  const worklist = useSession((s) => s.worklist);
  const View = views[station];
  return (
    <div className="relative grid h-full grid-cols-[76px_minmax(0,1fr)_auto] max-[900px]:grid-cols-[62px_minmax(0,1fr)_auto] grid-rows-[44px_minmax(0,1fr)_auto_40px]">
      <Head />
      <Rail station={station} />
      <main className="min-w-0 overflow-hidden bg-desk" aria-label={station}>
        <Guarded key={`${view.id} ${station}`} what="This station">
          <Suspense fallback={<Awaited words="Opening…" />}>
            <View key={view.id} />
          </Suspense>
        </Guarded>
      </main>
      {worklist ? (
        <Guarded what="The list of findings">
          <Worklist station={station} />
        </Guarded>
      ) : (
        <Folded />
      )}
      <Said />
      <Guarded what="The number line">
        <NumberLine />
      </Guarded>
      <Guarded what="This sheet">
        <Dialogs station={station} />
      </Guarded>
    </div>
  );
}
