import { CloseButton, Dialog, DialogBackdrop, DialogPanel, DialogTitle } from "@headlessui/react";
import type { ReactNode } from "react";

interface Props {
  title: string;
  open: boolean;
  onClose: () => void;
  children: ReactNode;
  wide?: boolean;
}

/** A sheet of paper laid over the bench; Esc puts it away. */
export function Sheet({ title, open, onClose, children, wide = false }: Props) {
  return (
    <Dialog open={open} onClose={onClose} className="relative z-30">
      <DialogBackdrop className="fixed inset-0 bg-scrim" />
      <div className="fixed inset-0 flex items-start justify-center p-4 pt-[6vh]">
        <DialogPanel
          className={`max-h-[88vh] w-full overflow-auto rounded border border-rule bg-sheet p-5 text-ink ${wide ? "max-w-3xl" : "max-w-lg"}`}
        >
          <div className="mb-3 flex items-start justify-between gap-4">
            <DialogTitle className="text-[15px] font-semibold">{title}</DialogTitle>
            <CloseButton
              aria-label="Close"
              title="Close (Esc)"
              className="-mt-1 -mr-1 size-7 shrink-0 rounded text-faint hover:bg-wash hover:text-ink"
            >
              ×
            </CloseButton>
          </div>
          {children}
        </DialogPanel>
      </div>
    </Dialog>
  );
}
