/** Parts of the page that are fetched when they are first wanted, or before that when there is nothing else to do. */
import { lazy, type ComponentType } from "react";

type Load = () => Promise<{ default: ComponentType }>;

const IDLE = 1500;
const waiting: Load[] = [];
/** What begins anew with each that did not come. */
const failed = new Set<() => void>();
let asked = 0;

/** A component that is fetched; one that did not come is fetched again after `fetchAgain`. */
export function fetched(load: Load): ComponentType {
  const begun = () =>
    lazy(() =>
      load().catch((error: unknown) => {
        failed.add(() => {
          Fetched = begun();
        });
        throw error;
      }),
    );
  let Fetched = begun();
  waiting.push(load);
  return function Station() {
    const Now = Fetched;
    return <Now />;
  };
}

/** Let what did not come be fetched again; where that was in vain, the page may be another one now: load it. */
export function fetchAgain(): void {
  if (failed.size === 0) return;
  asked += 1;
  if (asked > 1)
    void fetch("/").then(
      (answer) => answer.ok && location.reload(), // not while the server is away: the page would be gone
      () => undefined,
    );
  failed.forEach((again) => again());
  failed.clear();
}

/** Fetch what is still wanted, one after the other, so that every station opens while the server is away. */
export function fetchAhead(): void {
  setTimeout(() => {
    void (async () => {
      for (const load of waiting.splice(0)) await load().catch(() => undefined);
    })();
  }, IDLE);
}
