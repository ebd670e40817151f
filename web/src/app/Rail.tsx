import { Link } from "wouter";
import type { DesignView, Finding } from "../api/types";
import { Mark, TEXT } from "../ui/Mark";
import { useDesign } from "./design";
import { STATIONS, type Station } from "./stations";

/** The stations in the order of the work, each with what is unsettled there. */
export function Rail({ station }: { station: Station["id"] }) {
  const { id, findings, readiness } = useDesign();
  return (
    <nav
      aria-label="Stations"
      className="min-h-0 overflow-x-hidden overflow-y-auto border-r [scrollbar-width:none] border-rule bg-card"
    >
      {STATIONS.map((s) => (
        <Link
          key={s.id}
          href={`/d/${id}/${s.id}${window.location.search}`}
          aria-current={s.id === station ? "page" : undefined}
          title={readiness.waits.find((w) => w.station === s.id)?.words}
          className={`block h-[70px] max-h-[calc((100vh-84px)/9)] min-h-[62px] border-l-[3px] pt-2 pl-[11px] max-[900px]:pl-[6px] outline-offset-[-3px] ${
            s.id === station ? "border-petrol bg-sheet" : "border-transparent hover:bg-warm"
          }`}
        >
          <span className="num block text-[11px] text-faint">{s.number}</span>
          <span className="font-semibold">{s.name}</span>
          <Counts
            findings={findings.filter((f) => f.station === s.id && f.accepted == null)}
            wait={readiness.waits.find((w) => w.station === s.id)}
          />
        </Link>
      ))}
    </nav>
  );
}

type Wait = DesignView["readiness"]["waits"][number];

/** What is unsettled; else how many the station waits for; a tick only where its work is done. */
function Counts({ findings, wait }: { findings: Finding[]; wait: Wait | undefined }) {
  const stops = findings.filter((f) => f.severity === "must").length;
  const looks = findings.filter((f) => f.severity === "judge").length;
  if (stops + looks === 0 && wait) {
    return (
      <span className="num mt-0.5 flex items-center gap-1 text-[11px] text-faint">
        <Mark kind="waiting" />
        {wait.many > 0 && wait.many}
        <span className="sr-only">{wait.words}</span>
      </span>
    );
  }
  if (stops + looks === 0) {
    return (
      <span className="mt-0.5 flex">
        <Mark kind="settled" />
      </span>
    );
  }
  return (
    <span className="num mt-0.5 flex flex-wrap gap-x-2 text-[11px] max-[900px]:gap-x-1">
      {stops > 0 && (
        <span className={`flex items-center gap-1 ${TEXT.must}`}>
          <Mark kind="must" className="size-2" />
          {stops}
        </span>
      )}
      {looks > 0 && (
        <span className={`flex items-center gap-1 ${TEXT.judge}`}>
          <Mark kind="judge" />
          {looks}
        </span>
      )}
    </span>
  );
}
