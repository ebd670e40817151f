/** Whatever sheet is laid over the bench. */
import { AcceptDialog } from "./AcceptDialog";
import { Designs } from "./Designs";
import { Help } from "./Help";
import { Palette } from "./Palette";
import { useSession } from "./session";
import type { Station } from "./stations";

export function Dialogs({ station }: { station: Station["id"] }) {
  const dialog = useSession((s) => s.dialog);
  const set = useSession((s) => s.set);
  const close = () => set({ dialog: null });
  switch (dialog) {
    case "palette":
      return <Palette onClose={close} />;
    case "help":
      return <Help onClose={close} />;
    case "accept":
      return <AcceptDialog onClose={close} />;
    case "designs":
      return <Designs onClose={close} station={station} />;
    case null:
      return null;
  }
}
