/** What lies behind a module: its strips and LEDs with their figures, and the room that throws light back. */
import type { LightView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { useTrade } from "../../app/trade";
import { Button } from "../../ui/Button";
import { ChoiceField, FigureField, LengthField } from "../../ui/fields";
import { many, shown } from "../../ui/figures";
import { TakeAway } from "../../ui/TakeAway";
import { useLightState } from "./store";
import type { Laying, Led, Strip } from "./useLaying";
import { useLamps } from "./useLight";

interface Props {
  light: LightView;
  laying: Laying;
}

export function Behind({ light, laying }: Props) {
  const { id } = useDesign();
  const { send } = useChanges(id);
  const { chosen, set } = useLightState();
  const remove = (one: string) => void send([{ do: "remove_lights", module: light.module, lights: [one] }]);
  const { strips, leds } = light.light;
  const walls = Object.entries(useTrade()?.thrown_back ?? {})
    .map(([name, share]) => `${name} about ${Math.round(share * 100)} %`)
    .join(", ");
  return (
    <div className="space-y-3 p-3.5 text-[12px]">
      <p className="text-[11px] text-faint">
        Lamps lie <span className="num">{shown(light.board - light.plane)}</span> behind what spreads their
        light
        {light.way.length > 0 && (
          <>
            {" "}
            (
            {light.way
              .map((layer) => `${layer.name.toLowerCase()} ${Math.round(layer.share * 100)} %`)
              .join(", ")}{" "}
            passes)
          </>
        )}
        .
      </p>
      {strips.map((strip, n) => {
        const run = light.runs.find((r) => r.id === strip.id);
        return (
          <Row
            key={strip.id}
            name={`Strip ${n + 1}`}
            says={run ? `${shown(run.cut, 0)} mm, ${many(run.leds, "LED")}, ${shown(run.amps, 2)} A` : ""}
            open={chosen === strip.id}
            onOpen={() => set({ chosen: chosen === strip.id ? null : strip.id })}
            onTake={() => remove(strip.id)}
          >
            <StripFields strip={strip} laying={laying} />
          </Row>
        );
      })}
      {leds.map((led, n) => (
        <Row
          key={led.id}
          name={`LED ${n + 1}`}
          says={`x ${shown(led.x)}, y ${shown(led.y)}, ${Math.round(led.level * 100)} %`}
          open={chosen === led.id}
          onOpen={() => set({ chosen: chosen === led.id ? null : led.id })}
          onTake={() => remove(led.id)}
        >
          <LedFields led={led} laying={laying} />
        </Row>
      ))}
      {light.chain && (
        <p className="text-[11px] text-faint">
          Data runs from LED 1 to {light.chain.links.at(-1)?.last}, strip after strip; 5 V and 0 V come in
          before {light.chain.feeds.map((feed) => `LED ${feed.number}`).join(", ")}. Wires between strips:{" "}
          <span className="num">
            {light.chain.links
              .slice(1)
              .map((link) => shown(link.wire, 0))
              .join(", ") || "none"}
          </span>
          {light.chain.links.length > 1 && " mm"}.
        </p>
      )}
      <div className="flex flex-wrap gap-2">
        <Button keys="N" onClick={laying.addStrip}>
          Add a strip
        </Button>
        <Button keys="L" onClick={laying.addLed}>
          Add an LED
        </Button>
      </div>
      <FigureField
        label="Walls and board throw back"
        value={Math.round(light.light.white * 100)}
        unit="%"
        most={95}
        whole
        onCommit={(white) => void send([{ do: "set_light", module: light.module, white: white / 100 }])}
      />
      {walls && <p className="text-[11px] text-faint">{walls}</p>}
      <p className="text-[11px] text-faint">
        Brightness of strips and LEDs is from memory of data sheets: yours may give half or twice as much. How
        even it is depends on it much less.
      </p>
    </div>
  );
}

interface RowProps {
  name: string;
  says: string;
  open: boolean;
  onOpen: () => void;
  onTake: () => void;
  children: React.ReactNode;
}

function Row({ name, says, open, onOpen, onTake, children }: RowProps) {
  return (
    <section aria-label={name} className="border-b border-rule pb-2">
      <div className="flex items-start justify-between gap-2">
        <button
          type="button"
          className="text-left font-semibold hover:underline"
          aria-expanded={open}
          onClick={onOpen}
        >
          {name}
          <span className="num block text-[11px] font-normal text-faint">{says}</span>
        </button>
        <TakeAway what={name} onTake={onTake} />
      </div>
      {open && <div className="mt-2 grid grid-cols-2 gap-2">{children}</div>}
    </section>
  );
}

function useKinds(strip: boolean): readonly (readonly [string, string])[] {
  const lamps = useLamps();
  return (lamps.data?.kinds ?? []).filter((k) => k.strip === strip).map((k) => [k.kind, k.name] as const);
}

function StripFields({ strip, laying }: { strip: Strip; laying: Laying }) {
  const kinds = useKinds(true);
  const edit = (changes: Partial<Strip>) => void laying.editStrip(strip.id, changes);
  return (
    <>
      <div className="col-span-2">
        <ChoiceField
          label="Kind"
          value={strip.kind}
          options={kinds as readonly (readonly [Strip["kind"], string])[]}
          onCommit={(kind) => edit({ kind })}
        />
      </div>
      <LengthField label="From x" value={strip.x} least={-10000} onCommit={(x) => edit({ x })} />
      <LengthField label="From y" value={strip.y} least={-10000} onCommit={(y) => edit({ y })} />
      <LengthField label="To x" value={strip.x2} least={-10000} onCommit={(x2) => edit({ x2 })} />
      <LengthField label="To y" value={strip.y2} least={-10000} onCommit={(y2) => edit({ y2 })} />
      <FigureField
        label="Leans to its left"
        value={strip.tilt}
        unit="°"
        least={-90}
        most={90}
        onCommit={(tilt) => edit({ tilt })}
      />
      <Depth z={strip.z} onCommit={(z) => edit({ z })} />
    </>
  );
}

function LedFields({ led, laying }: { led: Led; laying: Laying }) {
  const kinds = useKinds(false);
  const edit = (changes: Partial<Led>) => void laying.editLed(led.id, changes);
  return (
    <>
      <div className="col-span-2">
        <ChoiceField
          label="Kind"
          value={led.kind}
          options={kinds as readonly (readonly [Led["kind"], string])[]}
          onCommit={(kind) => edit({ kind })}
        />
      </div>
      <LengthField label="x" value={led.x} least={-10000} onCommit={(x) => edit({ x })} />
      <LengthField label="y" value={led.y} least={-10000} onCommit={(y) => edit({ y })} />
      <FigureField
        label="Of its usual current"
        value={Math.round(led.level * 100)}
        unit="%"
        least={2}
        most={100}
        whole
        onCommit={(level) => edit({ level: level / 100 })}
      />
      <Depth z={led.z} onCommit={(z) => edit({ z })} />
    </>
  );
}

/** How deep it lies: on the board, or at a depth of its own. */
function Depth({ z, onCommit }: { z: number | null | undefined; onCommit: (z: number | null) => void }) {
  return (
    <FigureField
      label="Behind the front"
      value={z ?? null}
      unit="mm"
      least={0}
      hint="on the board"
      onEmpty={() => onCommit(null)}
      onCommit={(depth) => onCommit(depth)}
    />
  );
}
