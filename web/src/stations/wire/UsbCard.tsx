/** What the boards are plugged into: ports of the computer, a hub, the longest cable. */
import { useChanges, useDesign } from "../../app/design";
import { many } from "../../ui/figures";
import { ChoiceField, FigureField, LengthField } from "../../ui/fields";

export function UsbCard() {
  const { id, design } = useDesign();
  const { send } = useChanges(id);
  const { usb, controllers } = design;
  if (controllers.length === 0) return null;
  const ports = usb.hub === "none" ? usb.ports : usb.ports - 1 + usb.hub_ports;
  return (
    <section aria-label="USB">
      <h3 className="font-semibold">USB</h3>
      <p className={controllers.length > ports ? "text-judge" : "text-faint"}>
        {many(controllers.length, "board")} on {many(ports, "port")}. A port gives 500 mA; a hub without a
        supply 100 mA to each of its own.
      </p>
      <div className="mt-1.5 grid grid-cols-2 gap-2">
        <FigureField
          label="Ports of the computer"
          whole
          value={usb.ports}
          least={1}
          most={32}
          onCommit={(ports) => void send([{ do: "set_usb", ports }])}
        />
        <LengthField
          label="Longest cable"
          value={usb.cable}
          onCommit={(cable) => void send([{ do: "set_usb", cable }])}
        />
        <ChoiceField
          label="Hub"
          value={usb.hub}
          options={[
            ["none", "none"],
            ["powered", "with a supply"],
            ["unpowered", "without a supply"],
          ]}
          onCommit={(hub) => void send([{ do: "set_usb", hub }])}
        />
        {usb.hub !== "none" && (
          <FigureField
            label="Ports of the hub"
            whole
            value={usb.hub_ports}
            least={2}
            most={32}
            onCommit={(hub_ports) => void send([{ do: "set_usb", hub_ports }])}
          />
        )}
      </div>
    </section>
  );
}
