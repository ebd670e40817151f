/** The fix of a finding: there already, or asked for. */
import { answered, api } from "../api/client";
import type { Command, DesignView, Finding } from "../api/types";
import type { Changes } from "./design";
import { useSession } from "./session";

const commandsOf = (finding: Finding | undefined): Command[] => finding?.fix?.commands ?? [];

/** Carry out the fix of a finding as it is once all earlier changes are kept. */
export async function applyFix(id: string, finding: string, changes: Changes): Promise<void> {
  const now = (view: DesignView) => view.findings.find((f) => f.id === finding);
  let asked = false;
  await changes.sendFrom((view) => {
    asked = now(view)?.fix_on_request ?? false;
    return commandsOf(now(view));
  });
  if (!asked) return;
  const params = { path: { design_id: id }, query: { finding } };
  const found = await answered(api.GET("/api/designs/{design_id}/fix", { params }));
  const commands = commandsOf(found);
  if (commands.length) await changes.send(commands);
  else
    useSession
      .getState()
      .set({ notice: "No move was found that settles it without breaking something else" });
}
