/** The bench round every station: rail, head, worklist, number line, and what is laid over them. */
import { Suspense } from "react";
import { useDesign } from "./design";
import { Dialogs } from "./Dialogs";
import { Head } from "./Head";
import { useKeys } from "./keys";
import { NumberLine } from "./NumberLine";
import { Rail } from "./Rail";
import { useSession } from "./session";
import type { Station } from "./stations";
import { Worklist } from "./Worklist";

/** What stands in the middle at each station. */
export type Views = Readonly<Record<Station["id"], React.ComponentType>>;

export function Frame({ station, views }: { station: Station["id"]; views: Views }) {
  useKeys(station);
  const view = useDesign();
  const worklist = useSession((s) => s.worklist);
  const View = views[station];
  return (
    <div className="grid h-full grid-cols-[76px_minmax(0,1fr)_auto] grid-rows-[44px_minmax(0,1fr)_40px]">
      <Head />
      <Rail station={station} />
      <main className="min-w-0 overflow-hidden bg-desk" aria-label={station}>
        <Suspense fallback={<p className="p-4 text-faint">Opening…</p>}>
          <View key={view.id} />
        </Suspense>
      </main>
      {worklist ? <Worklist station={station} /> : <span />}
      <NumberLine />
      <Dialogs station={station} />
    </div>
  );
}
