/** The colours that lines have in SVG files: laser software tells operations by them. */
import { useChanges, useDesign } from "../../app/design";
import { useSurface } from "./useSheets";

const NAMES = {
  mask: "kiss cuts",
  engrave: "engraving",
  pocket: "pockets",
  inner: "openings",
  outline: "outlines",
} as const;

export function Colours() {
  const { id } = useDesign();
  const { send } = useChanges(id);
  const surface = useSurface();
  if (!surface.data) return null;
  return (
    <>
      <h3 className="mt-5 text-[12px]">Colours of lines in SVG</h3>
      <p className="mt-0.5 text-[11px] text-faint">
        Software of many lasers tells operations by colour: give them those that yours knows.
      </p>
      <ul className="mt-1 space-y-1">
        {surface.data.colours.map(({ operation, colour, usual }) => (
          <li key={operation} className="grid grid-cols-[1fr_56px_56px] items-center gap-2">
            <span>{NAMES[operation]}</span>
            <input
              type="color"
              aria-label={`Colour of ${NAMES[operation]}`}
              value={colour.toLowerCase()}
              className="h-6 w-full rounded border border-faint bg-sheet"
              onChange={(event) => void send([{ do: "set_colours", [operation]: event.target.value }])}
            />
            {colour.toLowerCase() !== usual.toLowerCase() && (
              <button
                type="button"
                className="text-left text-[11px] text-petrol underline hover:no-underline"
                aria-label={`Usual colour of ${NAMES[operation]}`}
                onClick={() => void send([{ do: "set_colours", [operation]: null }])}
              >
                usual
              </button>
            )}
          </li>
        ))}
      </ul>
    </>
  );
}
