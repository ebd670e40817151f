/** Brief: the function list as a thread board, and the space it must fit. */
import { useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { FunctionSheet } from "./FunctionSheet";
import { Space } from "./Space";
import { ThreadBoard } from "./ThreadBoard";

export default function Brief() {
  const { design } = useDesign();
  const selection = useSession((s) => s.selection);
  const chosen = selection.length === 1 ? design.functions.find((f) => f.id === selection[0]) : undefined;
  return (
    <div className="grid h-full grid-cols-[minmax(0,11fr)_minmax(300px,8fr)]">
      <ThreadBoard />
      <div className="overflow-y-auto p-4">
        {chosen && <FunctionSheet key={chosen.id} fn={chosen} />}
        <Space />
      </div>
    </div>
  );
}
