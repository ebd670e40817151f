/** Brief: the function list as a thread board, and beside it the function, the space, the workshop, money and hours. */
import { useState } from "react";
import { useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { Tabs } from "../../ui/Tabs";
import { BulkSheet } from "./BulkSheet";
import { Budget } from "./Budget";
import { FunctionSheet } from "./FunctionSheet";
import { Space } from "./Space";
import { ThreadBoard } from "./ThreadBoard";
import { Workshop } from "./Workshop";

const TABS = [
  ["space", "Space"],
  ["workshop", "Workshop"],
  ["budget", "Money and hours"],
] as const;

type Tab = (typeof TABS)[number][0] | "function";

export default function Brief() {
  const { design } = useDesign();
  const selection = useSession((s) => s.selection);
  const chosen = design.functions.filter((f) => selection.includes(f.id));
  const key = chosen.map((f) => f.id).join();
  const [tab, setTab] = useState<{ of: string; tab: Tab }>({ of: "", tab: "space" });
  // Choosing another function opens its sheet; a tab opened since then stays.
  const now: Tab = key && tab.of !== key ? "function" : !key && tab.tab === "function" ? "space" : tab.tab;
  const [one] = chosen;
  const tabs = chosen.length
    ? [["function", chosen.length === 1 ? "Function" : `${chosen.length} functions`] as const, ...TABS]
    : TABS;
  return (
    <div className="grid h-full grid-cols-[minmax(0,11fr)_minmax(330px,8fr)] max-[900px]:grid-cols-1 max-[900px]:grid-rows-[minmax(340px,100%)_auto] max-[900px]:overflow-y-auto">
      <ThreadBoard />
      <div className="flex min-h-0 flex-col">
        <Tabs
          label="Beside the list"
          tabs={tabs}
          now={now}
          onChange={(next) => setTab({ of: key, tab: next })}
        />
        <div className="min-h-0 flex-1 overflow-y-auto p-4">
          {now === "function" && one && chosen.length === 1 && <FunctionSheet key={one.id} fn={one} />}
          {now === "function" && chosen.length > 1 && <BulkSheet chosen={chosen} />}
          {now === "space" && <Space />}
          {now === "workshop" && <Workshop />}
          {now === "budget" && <Budget />}
        </div>
      </div>
    </div>
  );
}
