/** Laying lamps behind a module: adding, moving, removing, dimming, and having it looked where they have to lie. */
import { useState } from "react";
import { answered, api } from "../../api/client";
import type { Command, LightView, Suggested } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { type RunningJob, useJob } from "../../app/useJob";
import { useLightState } from "./store";

export type Strip = LightView["light"]["strips"][number];
export type Led = LightView["light"]["leds"][number];
type StripChanges = Partial<Omit<Strip, "id">>;
type LedChanges = Partial<Omit<Led, "id">>;

export interface Laying {
  job: RunningJob;
  /** What the job does, in words. */
  what: string;
  suggested: Suggested | null;
  addStrip: () => void;
  addLed: () => void;
  editStrip: (strip: string, changes: StripChanges) => Promise<unknown>;
  editLed: (led: string, changes: LedChanges) => Promise<unknown>;
  remove: () => void;
  dim: (level: number) => void;
  dimmer: (dimmer: boolean) => void;
  /** What a controller's program does with it while no host speaks to it. */
  unhosted: (state: { boot?: number; lost?: LightView["light"]["lost"] }) => void;
  suggest: (way: "rows" | "edge") => Promise<void>;
  take: () => void;
  leave: () => void;
  refine: () => Promise<void>;
}

const given = (changes: object) =>
  Object.fromEntries(Object.entries(changes).filter(([, value]) => value !== undefined));

export function useLaying(light: LightView): Laying {
  const { id, revision } = useDesign();
  const { send, settled } = useChanges(id);
  const { chosen, set } = useLightState();
  const job = useJob();
  const [what, setWhat] = useState("");
  const [suggested, setSuggested] = useState<Suggested | null>(null);
  const module = light.module;
  const there = [...light.light.strips.map((s) => s.id), ...light.light.leds.map((l) => l.id)];
  const add = (command: Command) => {
    set({ side: "behind" });
    void send([command]).then((after) => {
      const made = after?.design.modules.find((m) => m.id === module)?.light;
      const ids = [...(made?.strips ?? []), ...(made?.leds ?? [])].map((one) => one.id);
      const fresh = ids.find((one) => !there.includes(one));
      if (fresh) set({ chosen: fresh });
    });
  };
  const path = { params: { path: { design_id: id, module } } };
  return {
    job,
    what,
    suggested: suggested?.module === module && suggested.revision === revision ? suggested : null,
    addStrip: () => add({ do: "add_strip", module }),
    addLed: () => add({ do: "add_leds", module }),
    editStrip: (strip, changes) => send([{ do: "edit_strip", module, strip, ...given(changes) }]),
    editLed: (led, changes) => send([{ do: "edit_led", module, led, ...given(changes) }]),
    remove: () => {
      if (chosen && there.includes(chosen)) {
        set({ chosen: null });
        void send([{ do: "remove_lights", module, lights: [chosen] }]);
      }
    },
    dimmer: (dimmer) => void send([{ do: "set_light", module, dimmer }]),
    unhosted: (state) => void send([{ do: "set_light", module, ...state }]),
    dim: (level) => void send([{ do: "set_light", module, level }]).finally(() => set({ level: null })),
    suggest: async (way) => {
      setWhat("Looking where lamps have to lie");
      const base = (await settled())?.revision ?? revision;
      const done = await job.run(() =>
        answered(
          api.POST("/api/designs/{design_id}/light/{module}/suggest", {
            ...path,
            body: { base, way, key: crypto.randomUUID() },
          }),
        ),
      );
      const found = done?.suggested;
      if (!found) return;
      if (found.commands.length === 0)
        useSession.getState().set({ notice: "No lamp more would make these legends more even" });
      else setSuggested(found);
    },
    take: () => {
      if (suggested) void send(suggested.commands);
      setSuggested(null);
    },
    leave: () => setSuggested(null),
    refine: async () => {
      setWhat("A finer map");
      const base = (await settled())?.revision ?? revision;
      const done = await job.run(() =>
        answered(
          api.POST("/api/designs/{design_id}/light/{module}/refine", {
            ...path,
            body: { base, key: crypto.randomUUID() },
          }),
        ),
      );
      if (done) set({ fine: true });
    },
  };
}
