/** Who sits or stands before it: pitch, eye, free hand, reach and knees. */
import { type BriefChanges, setSeat } from "../../api/commands";
import type { Command, DesignView } from "../../api/types";
import { ChoiceField, FigureField, LengthField } from "../../ui/fields";

interface Props {
  brief: DesignView["design"]["brief"];
  set: (changes: BriefChanges) => void;
  send: (command: Command) => void;
}

const FREE = [
  ["both", "both"],
  ["left", "left"],
  ["right", "right"],
] as const;

export function Person({ brief, set, send }: Props) {
  const { seat } = brief;
  return (
    <section aria-label="Who uses it" className="mt-5">
      <h3 className="text-[12px]">Who uses it</h3>
      <div className="mt-1 grid grid-cols-3 gap-2.5">
        <FigureField
          label="Tilt"
          unit="°"
          value={brief.pitch}
          least={-80}
          most={90}
          onCommit={(pitch) => set({ pitch })}
        />
        <FigureField
          label="Eye to middle"
          unit="mm"
          value={brief.eye_distance ?? null}
          least={50}
          most={5000}
          onEmpty={() => set({ eye_distance: null })}
          onCommit={(eye_distance) => set({ eye_distance })}
        />
        <LengthField
          label="Eye above middle"
          value={brief.eye_height}
          least={-5000}
          onCommit={(eye_height) => set({ eye_height })}
        />
        <ChoiceField
          label="Free hand"
          value={brief.free_hand}
          options={FREE}
          onCommit={(free_hand) => set({ free_hand })}
        />
        <LengthField
          label="Reach of the arm"
          value={brief.reach}
          least={50}
          onCommit={(reach) => set({ reach })}
        />
        <label className="flex items-center gap-2 self-end pb-2 text-[12px]">
          <input
            type="checkbox"
            checked={seat != null}
            onChange={(event) => send(event.target.checked ? setSeat({}) : { do: "remove_seat" })}
          />
          knees under it
        </label>
        {seat && (
          <>
            <LengthField
              label="Edge over floor"
              value={seat.edge_height}
              least={10}
              onCommit={(edge_height) => send(setSeat({ edge_height }))}
            />
            <LengthField
              label="Knee over floor"
              value={seat.knee_height}
              least={10}
              onCommit={(knee_height) => send(setSeat({ knee_height }))}
            />
            <LengthField
              label="Knee past edge"
              value={seat.knee_reach}
              least={-5000}
              onCommit={(knee_reach) => send(setSeat({ knee_reach }))}
            />
          </>
        )}
      </div>
    </section>
  );
}
