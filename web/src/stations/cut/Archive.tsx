/** Every file of the design as one archive: made as a job, then handed over. */
import { answered, api } from "../../api/client";
import { useChanges, useDesign } from "../../app/design";
import { useJob } from "../../app/useJob";
import { Button } from "../../ui/Button";

/** Let the browser save what is at an address. */
function save(href: string): void {
  const link = document.createElement("a");
  link.href = href;
  link.download = "";
  link.click();
}

export function Archive() {
  const { id } = useDesign();
  const { standing, run, stop } = useJob();
  const path = { design_id: id };
  const { settled } = useChanges(id);
  const make = async () => {
    await settled(); // what is drawn is what is written
    const over = await run(() =>
      answered(api.POST("/api/designs/{design_id}/cut/archive", { params: { path } })),
    );
    if (over) save(`/api/designs/${id}/cut/archive/${over.id}`);
  };
  if (!standing) {
    return (
      <Button look="solid" className="mt-2" onClick={() => void make()}>
        Everything, as one archive
      </Button>
    );
  }
  return (
    <div role="status" className="mt-2 text-[12px]">
      <p className="flex items-center gap-2">
        <progress
          className="h-2 min-w-0 flex-1 accent-petrol"
          aria-label="Making the archive"
          max={1}
          value={standing.done ?? undefined}
        />
        <Button onClick={stop}>Stop</Button>
      </p>
      <p className="mt-1 truncate text-faint">{standing.words}</p>
    </div>
  );
}
