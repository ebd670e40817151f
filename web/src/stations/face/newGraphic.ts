/** A new graphic where it was asked for. The server fills in sizes that follow from its words, or from what it spans. */
import type { Command, DesignView, Fn, ModuleView } from "../../api/types";

export type GraphicKind = DesignView["design"]["graphics"][number]["kind"];

interface Spot {
  x: number;
  y: number;
}

const WORDS: Record<GraphicKind, string> = {
  bracket: "Title",
  box: "Title",
  text: "Text",
  placard: "Placard",
  symbol: "",
};

/** A bracket or box goes over what is selected; everything else where the hand was. */
export function newGraphic(kind: GraphicKind, module: ModuleView, over: readonly Fn[], spot: Spot): Command {
  const spanned =
    kind === "bracket" || kind === "box" ? over.filter((f) => f.place?.module === module.id) : [];
  return {
    do: "add_graphic",
    module: module.id,
    kind,
    text: kind === "text" ? module.name : spanned[0]?.group || WORDS[kind],
    symbol: kind === "symbol" ? "warning" : null,
    functions: spanned.map((f) => f.id),
    x: spot.x,
    y: spot.y,
    width: 0,
    height: 0,
    cap: null,
    role: kind === "text" ? "panel" : kind === "placard" ? "position" : "name",
    turn: 0,
  };
}
