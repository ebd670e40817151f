/** Which design and station the address names. */
import { useIsFetching, useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { Redirect, Route, Switch } from "wouter";
import { answered, api, Refused } from "../api/client";
import { Damaged } from "./Damaged";
import { DesignContext, useDesignQuery, useShown } from "./design";
import { FirstVisit } from "./FirstVisit";
import { Frame, type Views } from "./Frame";
import { useNews } from "./news";
import { useSelectionInAddress } from "./place";
import { isStation } from "./stations";

/** Says in the document how many questions are open, so that whoever waits for the page can see it. */
function useBusy(): void {
  const open = useIsFetching();
  useEffect(() => {
    document.documentElement.dataset["asking"] = String(open);
  }, [open]);
}

export function App({ views }: { views: Views }) {
  useNews();
  useBusy();
  return (
    <Switch>
      <Route path="/">
        <Start />
      </Route>
      <Route path="/new">
        <FirstVisit />
      </Route>
      <Route path="/d/:design/:station?">
        {({ design, station }) => <Opened key={design} id={design} station={station} views={views} />}
      </Route>
      <Route>
        <Message title="There is nothing at this address" text="Choose a design from the start page." />
      </Route>
    </Switch>
  );
}

/** The problem that a damaged design answers with. */
const DAMAGED = "urn:wingboard:unreadable-revision";

/** The design that was kept last, or the first visit. */
function Start() {
  const designs = useQuery({
    queryKey: ["designs"],
    queryFn: () => answered(api.GET("/api/designs")),
    refetchOnMount: "always",
  });
  if (designs.isError) return <Message title="The designs cannot be read" text={designs.error.message} />;
  if (!designs.data) return <Message title="Opening…" text="" />;
  const latest = designs.data[0];
  return latest ? <Redirect to={`/d/${latest.id}/face`} replace /> : <FirstVisit />;
}

function Opened({ id, station, views }: { id: string; station: string | undefined; views: Views }) {
  const design = useDesignQuery(id);
  useSelectionInAddress();
  const shown = useShown(design.data);
  const name = design.data?.design.name;
  useEffect(() => {
    document.title = name ? `${name} · Wing Board` : "Wing Board";
  }, [name]);
  if (!isStation(station)) return <Redirect to={`/d/${id}/face`} replace />;
  if (design.error instanceof Refused && design.error.problem.type === DAMAGED)
    return <Damaged id={id} reason={design.error.message} />;
  if (design.isError) return <Message title="This design cannot be opened" text={design.error.message} />;
  if (!shown) return <Message title="Opening…" text="" />;
  return (
    <DesignContext value={shown}>
      <Frame station={station} views={views} />
    </DesignContext>
  );
}

function Message({ title, text }: { title: string; text: string }) {
  return (
    <main className="grid h-full place-items-center">
      <div className="max-w-md rounded border border-rule bg-sheet p-6">
        <h1 className="text-[15px]">{title}</h1>
        <p className="mt-1 text-faint">{text}</p>
        {text && (
          <a className="mt-3 inline-block text-petrol underline" href="/">
            To the start page
          </a>
        )}
      </div>
    </main>
  );
}
