import { Dialog, DialogBackdrop, DialogPanel, DialogTitle } from "@headlessui/react";
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
      <DialogBackdrop className="fixed inset-0 bg-ink/30" />
      <div className="fixed inset-0 flex items-start justify-center p-6 pt-[12vh]">
        <DialogPanel
          className={`max-h-[76vh] w-full overflow-auto rounded border border-rule bg-sheet p-5 text-ink ${wide ? "max-w-3xl" : "max-w-lg"}`}
        >
          <DialogTitle className="mb-3 text-[15px] font-semibold">{title}</DialogTitle>
          {children}
        </DialogPanel>
      </div>
    </Dialog>
  );
}
