/** Holding a ruler to the screen: a line of known pixels is measured, and true size is true from then on. */
import { useState } from "react";
import { Button } from "../ui/Button";
import { FigureField, understood } from "../ui/fields";
import { Sheet } from "../ui/Sheet";
import { calibrate, pixelsPerMm } from "./ruler";

const LINE = 380;

export function Calibrate({ onClose, onDone }: { onClose: () => void; onDone: () => void }) {
  const [measured, setMeasured] = useState(Math.round((LINE / pixelsPerMm()) * 10) / 10);
  return (
    <Sheet title="True size on this screen" open onClose={onClose}>
      <p className="text-faint">Hold a ruler to the line, and say how long it is from stroke to stroke.</p>
      <svg width={LINE + 20} height="40" className="mt-4" role="img" aria-label="A line to measure">
        <path
          d={`M10 20H${LINE + 10}M10 8V32M${LINE + 10} 8V32`}
          stroke="var(--ink)"
          strokeWidth="1.5"
          fill="none"
        />
      </svg>
      <div className="mt-3 flex items-start gap-3">
        <FigureField
          label="Length of the line"
          unit="mm"
          value={measured}
          least={20}
          most={400}
          onCommit={setMeasured}
        />
        <Button
          look="solid"
          className="mt-[23px]"
          onClick={(event) =>
            void understood(event.currentTarget.parentElement).then((fine) => {
              if (!fine) return;
              calibrate(LINE, measured);
              onDone();
            })
          }
        >
          Show true size
        </Button>
      </div>
    </Sheet>
  );
}
