/** How one looks at a drawing: its scale, true size by a ruler, and all of it; the same keys at every one. */
import { type ReactNode, useState } from "react";
import { Calibrate } from "../canvas/Calibrate";
import { isCalibrated, pixelsPerMm } from "../canvas/ruler";
import type { Camera } from "../canvas/useCamera";
import { shown } from "../ui/figures";
import { useCommands } from "./registry";

export const TOOL =
  "shrink-0 rounded border border-rule bg-sheet px-1.5 py-0.5 text-[11px] whitespace-nowrap hover:border-petrol";

/** The keys that zoom and fit belong to this drawing while it is on the page. */
export function useLooking(camera: Camera): void {
  useCommands({
    "view.larger": () => camera.zoom(1.25),
    "view.smaller": () => camera.zoom(0.8),
    "view.fit": camera.fit,
    "view.true": camera.trueSize,
  });
}

interface Props {
  camera: Camera;
  /** Whether millimetres of the drawing are millimetres of the real thing. */
  real?: boolean;
  children?: ReactNode;
}

export function Looking({ camera, real = true, children }: Props) {
  useLooking(camera);
  const [calibrating, setCalibrating] = useState(false);
  const share = pixelsPerMm() / camera.viewport.scale;
  return (
    <div className="num flex shrink-0 items-center gap-2 text-[11px] text-faint">
      {children}
      {real && (
        <>
          <button
            type="button"
            className={TOOL}
            title="The screen shows this many millimetres of it in one; held to a ruler it is true"
            onClick={() => setCalibrating(true)}
          >
            1 : {shown(share, 2)}
            {isCalibrated() ? "" : " about"}
          </button>
          <button type="button" className={TOOL} title="As large as it is (T)" onClick={camera.trueSize}>
            True size
          </button>
        </>
      )}
      <button type="button" className={TOOL} title="Show all of it (F)" onClick={camera.fit}>
        Fit
      </button>
      {calibrating && (
        <Calibrate
          onClose={() => setCalibrating(false)}
          onDone={() => {
            setCalibrating(false);
            camera.trueSize();
          }}
        />
      )}
    </div>
  );
}
