/** A drawing in its window: what lies under it, what is drawn in millimetres, and what is laid over it in pixels. */
import type { ReactNode, RefObject, SVGProps } from "react";
import { matrix } from "./camera";
import type { Camera } from "./useCamera";

interface Props {
  camera: Camera;
  frame: RefObject<HTMLDivElement | null>;
  /** What the drawing is to a screen reader, and what else belongs to its element. */
  drawing: SVGProps<SVGSVGElement> & { "data-board"?: string };
  className?: string;
  onPress?: (event: React.PointerEvent) => void;
  onDoubleClick?: (event: React.MouseEvent) => void;
  onContextMenu?: (event: React.MouseEvent) => void;
  /** Under the drawing. */
  under?: ReactNode;
  /** It offers to show all of it again once one looks elsewhere; stations with a strip of their own say it there. */
  offersFit?: boolean;
  /** Over the drawing, in its own axes. */
  over?: ReactNode;
  /** Drawn in millimetres, y up. */
  children: ReactNode;
}

export function Canvas({
  camera,
  frame,
  drawing,
  className = "",
  onPress,
  onDoubleClick,
  onContextMenu,
  under,
  over,
  offersFit = false,
  children,
}: Props) {
  return (
    <div
      ref={frame}
      className={`canvas relative min-h-0 flex-1 touch-none overflow-hidden select-none ${className}`}
      onPointerDown={onPress}
      onDoubleClick={onDoubleClick}
      onContextMenu={onContextMenu}
    >
      {under}
      <svg
        {...drawing}
        data-scale={camera.viewport.scale}
        className="absolute inset-0 size-full outline-none focus-visible:outline-2 focus-visible:-outline-offset-2 focus-visible:outline-petrol"
      >
        <g transform={matrix(camera.viewport)}>{children}</g>
      </svg>
      {over}
      {offersFit && camera.moved && (
        <button
          type="button"
          className="absolute top-1 right-1 rounded border border-rule bg-sheet px-1.5 py-0.5 text-[11px] hover:border-petrol"
          onPointerDown={(event) => event.stopPropagation()}
          onClick={camera.fit}
        >
          Fit
        </button>
      )}
    </div>
  );
}
