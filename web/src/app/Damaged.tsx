/** A design whose newest revision cannot be read: go on from the last that can be, or save what there is. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answered, api } from "../api/client";
import { Button } from "../ui/Button";
import { designKey } from "./queue";

export function Damaged({ id, reason }: { id: string; reason: string }) {
  const client = useQueryClient();
  const [wrong, setWrong] = useState<string | null>(null);
  const path = { design_id: id };
  const left = useQuery({
    queryKey: ["recovery", id],
    queryFn: () => answered(api.GET("/api/designs/{design_id}/recovery", { params: { path } })),
  });
  const recover = async () => {
    try {
      await answered(api.POST("/api/designs/{design_id}/recover", { params: { path } }));
      await client.resetQueries({ queryKey: designKey(id) });
    } catch (error) {
      setWrong(error instanceof Error ? error.message : "That did not work");
    }
  };
  const good = left.data?.last_good;
  return (
    <main className="grid h-full place-items-center">
      <div className="max-w-lg rounded border border-rule bg-sheet p-6">
        <h1 className="text-[15px]">This design is damaged</h1>
        <p className="mt-1 text-faint">{reason}</p>
        {left.data && (
          <p className="mt-3">
            {good == null
              ? "None of its revisions can be read."
              : `Revision ${good} of ${left.data.head} is the last that can be read.`}
          </p>
        )}
        {wrong && (
          <p role="alert" className="mt-2 text-must">
            {wrong}
          </p>
        )}
        <p className="mt-3 flex items-center gap-3">
          {good != null && (
            <Button look="solid" onClick={() => void recover()}>
              Go on from revision {good}
            </Button>
          )}
          <a className="text-petrol underline" href={`/api/designs/${id}/raw`} download>
            Save the raw file
          </a>
          <a className="text-petrol underline" href="/">
            To the start page
          </a>
        </p>
      </div>
    </main>
  );
}
