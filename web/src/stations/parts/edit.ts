import type { Command } from "../../api/types";

/** What can be changed on a part of the builder's own. */
export type Edit = Omit<Extract<Command, { do: "edit_part" }>, "do" | "part">;
