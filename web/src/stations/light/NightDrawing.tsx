/** The module in the dark: its letters as bright as they will be, its lamps, and what lies behind; or its evenness. */
import { useId, useRef } from "react";
import type { LightView } from "../../api/types";
import { useDesign } from "../../app/design";
import { Looking, TOOL } from "../../app/Looking";
import { useSession } from "../../app/session";
import { Canvas } from "../../canvas/Canvas";
import { Tag } from "../../canvas/Tag";
import { useCamera } from "../../canvas/useCamera";
import { many, shown } from "../../ui/figures";
import { AtNight } from "./AtNight";
import { ChainMarks } from "./ChainMarks";
import { LampShapes } from "./LampShapes";
import { Letters } from "./Letters";
import { Patches } from "./Patches";
import { useLightState } from "./store";
import type { Laying } from "./useLaying";

interface Props {
  light: LightView;
  laying: Laying;
}

export function NightDrawing({ light, laying }: Props) {
  const { id, revision, design, modules } = useDesign();
  const frame = useRef<HTMLDivElement>(null);
  const mask = useId();
  const { view, level, fine, set } = useLightState();
  const { selection, select } = useSession();
  const module = modules.find((m) => m.id === light.module);
  const extent = { x: 0, y: 0, width: module?.width ?? 1, height: module?.height ?? 1 };
  const camera = useCamera(frame, extent, { name: `light ${id} ${light.module}`, room: 28 });
  if (!module) return null;
  const scale = camera.viewport.scale;
  const night = light.night;
  const parts = new Map(design.parts.map((p) => [p.id, p]));
  const here = design.functions.flatMap((fn) => {
    const part = fn.place?.module === light.module ? parts.get(fn.part ?? "") : undefined;
    return part ? [{ fn, part }] : [];
  });
  const now = level ?? light.light.level;
  const source = `/api/designs/${id}/light/${light.module}/night.png?revision=${revision}${fine ? "&fine=true" : ""}${view === "even" ? "&even=true" : ""}`;
  const chosen = night?.legends.find((l) => selection.includes(l.function));
  return (
    <>
      <Canvas
        camera={camera}
        frame={frame}
        className="bg-(--room) max-[900px]:h-72"
        drawing={{
          role: "group",
          "aria-label": view === "behind" ? "What lies behind" : "The module at night",
          tabIndex: 0,
          "data-board": "",
        }}
        onPress={(event) => {
          if (event.button === 0 && !(event.target as Element).closest("[data-grip], [data-fn]")) {
            select([]);
            set({ chosen: null });
          }
        }}
      >
        <path d={module.path} fill="var(--night-plate)" stroke="var(--night-edge)" strokeWidth={1 / scale} />
        {night && view !== "behind" && (
          <>
            <mask
              id={mask}
              maskUnits="userSpaceOnUse"
              x={0}
              y={0}
              width={module.width}
              height={module.height}
            >
              {view === "even" ? (
                <path d={module.path} fill="var(--open)" />
              ) : (
                <Letters module={light.module} />
              )}
            </mask>
            {view === "night" && (
              <g fill="var(--night-letter)">
                <Letters module={light.module} ink="var(--night-letter)" />
              </g>
            )}
            <g mask={`url(#${mask})`}>
              <image
                href={source}
                x={night.x}
                y={-night.y - night.height}
                width={night.width}
                height={night.height}
                preserveAspectRatio="none"
                transform="scale(1 -1)"
                opacity={view === "night" ? dimmed(now) : 0.9}
              />
            </g>
            {view === "even" && <Letters module={light.module} ink="var(--night-plate)" />}
          </>
        )}
        {!night && view !== "behind" && (
          <g fill="var(--night-letter)">
            <Letters module={light.module} ink="var(--night-letter)" />
          </g>
        )}
        {view === "night" && here.map(({ fn, part }) => <AtNight key={fn.id} fn={fn} part={part} />)}
        {view === "behind" && (
          <>
            {light.bodies.map((body, n) => (
              <path
                key={n}
                d={body.path}
                fill="var(--night-body)"
                stroke="var(--night-edge)"
                strokeWidth={0.8 / scale}
              />
            ))}
            <Letters module={light.module} ink="var(--night-ink)" faint />
          </>
        )}
        <LampShapes light={light} laying={laying} scale={scale} faint={view !== "behind"} />
        {view === "behind" && light.chain && <ChainMarks light={light} chain={light.chain} scale={scale} />}
        {view === "even" && night && <Patches night={night} scale={scale} />}
        {chosen && (
          <g pointerEvents="none">
            <circle
              cx={chosen.x}
              cy={chosen.y}
              r={9 / scale}
              fill="none"
              stroke="var(--night-mark)"
              strokeWidth={1.6 / scale}
              strokeDasharray={`${4 / scale} ${3 / scale}`}
            />
            <Tag x={chosen.x} y={chosen.y - 20 / scale} scale={scale} text={shown(chosen.evenness, 2)} />
          </g>
        )}
      </Canvas>
      <div className="flex min-h-9 flex-wrap items-center gap-x-3 gap-y-0.5 border-t border-rule bg-card px-4 py-1 text-[11px] text-faint">
        <p className="min-w-48 flex-1">{says(light, view, chosen?.name)}</p>
        {view === "even" && night && <Scale bands={night.bands} />}
        {night && !fine && (
          <button type="button" className={TOOL} onClick={() => void laying.refine()}>
            Finer
          </button>
        )}
        <Looking camera={camera} />
      </div>
    </>
  );
}

/** The eye takes a fifth of the light for nearly half as bright: the picture is dimmed as screens show it. */
const dimmed = (level: number): number => level ** (1 / 2.2);

function says(light: LightView, view: string, chosen: string | undefined): string {
  if (view === "behind") return "Drag strips by their middle or their ends; grey is what throws shadows";
  if (!light.night) return "Nothing shines through yet";
  const peak = `usual legend ${shown(light.night.usual, 0)} cd/m²`;
  if (view === "even") {
    const { hot, rings } = light.night;
    const found = [
      ...(hot.length > 0 ? [many(hot.length, "hot spot")] : []),
      ...(rings.length > 0 ? [many(rings.length, "dark ring")] : []),
    ];
    return `${found.join(", ") || "No hot spot, no dark ring"}; ${peak}${rings.length > 0 ? "; % of a ring that is dark" : ""}`;
  }
  return chosen
    ? `${chosen}: the ring is where it is darkest; ${peak}`
    : `Letters as bright as they will be; ${peak}`;
}

/** What the colours of the evenness stand for, in shares of the usual light. */
function Scale({ bands }: { bands: readonly { share: number; colour: string }[] }) {
  return (
    <span className="flex shrink-0 gap-1.5" role="img" aria-label="Shares of the usual light by colour">
      {bands.map((band) => (
        <span key={band.share} className="num flex items-center gap-1 text-[11px]">
          <i className="size-2.5 border border-rule" style={{ background: band.colour }} aria-hidden="true" />
          {shown(band.share)}
        </span>
      ))}
    </span>
  );
}
