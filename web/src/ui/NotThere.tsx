/** In the place of what the server was asked for: while it is awaited, and when it did not come. */
import type { UseQueryResult } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Button } from "./Button";

interface Props {
  query: Pick<UseQueryResult, "isError" | "error" | "refetch">;
  /** While it is awaited: “Drawing the sheets…”. */
  words: string;
  className?: string;
}

const LONG = 6000;

export function NotThere({ query, words, className = "p-4" }: Props) {
  if (!query.isError) return <Awaited words={words} className={className} />;
  return (
    <div role="alert" className={className}>
      <p className="text-must">{query.error?.message ?? "That did not work"}</p>
      <Button className="mt-2" onClick={() => void query.refetch()}>
        Try again
      </Button>
    </div>
  );
}

/** Says after a while that it takes longer than it should. */
export function Awaited({ words, className = "p-4" }: { words: string; className?: string }) {
  const [long, setLong] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setLong(true), LONG);
    return () => clearTimeout(timer);
  }, []);
  return (
    <p role="status" className={`${className} text-faint`}>
      {words}
      {long && (
        <span className="block">This takes longer than it should; the server may be busy or away.</span>
      )}
    </p>
  );
}
