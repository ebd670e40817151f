import { type FormEvent, useState } from "react";
import { accept } from "../api/commands";
import { Button } from "../ui/Button";
import { Sheet } from "../ui/Sheet";
import { useChanges, useDesign } from "./design";
import { useSession } from "./session";

/** Living with a finding needs a reason; it is printed on the job sheet. */
export function AcceptDialog({ onClose }: { onClose: () => void }) {
  const view = useDesign();
  const { send } = useChanges(view.id);
  const focus = useSession((s) => s.focus);
  const [reason, setReason] = useState("");
  const finding = view.findings.find((f) => f.id === focus);
  if (!finding) return null;
  const over = finding.severity === "must";
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (!reason.trim()) return;
    void send([accept(finding.id, reason.trim(), finding.measured?.value ?? null)]);
    onClose();
  };
  return (
    <Sheet title={`${over ? "Override" : "Accept"} “${finding.title}”`} open onClose={onClose}>
      <p className="mb-3 text-faint">{finding.detail}</p>
      <form onSubmit={submit}>
        <label className="block text-[12px] text-faint" htmlFor="reason">
          {over
            ? "Why it is right all the same; printed first on the job sheet"
            : "Reason to accept it, printed on the job sheet"}
        </label>
        <input
          id="reason"
          autoFocus
          className="mt-1 h-8 w-full rounded border border-faint bg-sheet px-2"
          value={reason}
          maxLength={120}
          onChange={(event) => setReason(event.target.value)}
        />
        <div className="mt-4 flex gap-2">
          <Button look="solid" type="submit" disabled={!reason.trim()}>
            {over ? "Override" : "Accept"}
          </Button>
          <Button onClick={onClose}>Cancel</Button>
        </div>
      </form>
    </Sheet>
  );
}
