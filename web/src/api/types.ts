/** Short names for the generated types. */
import type { components } from "./schema.gen";

type Schemas = components["schemas"];

export type DesignView = Schemas["DesignView"];
export type DesignLine = Schemas["DesignLine"];
export type Fn = Schemas["Function"];
export type Part = Schemas["Part"];
export type Shape = Part["hole"];
export type BriefView = Schemas["BriefView"];
export type Listing = Schemas["ListingView"];
export type ImportView = Schemas["ImportView"];
export type Shelf = Schemas["Shelf"];
export type Machine = Schemas["Machine"];
export type Stock = Schemas["Stock"];
export type Candidate = Schemas["CandidateView"];
export type Reading = Schemas["Reading"];
export type KeepOut = Schemas["KeepOut"];
export type FrontShape = Schemas["FrontShape"];
export type Finding = Schemas["Finding"];
export type Lettering = Schemas["LetteringView"];
export type PanelView = Schemas["PanelView"];
export type Surroundings = Schemas["Surroundings"];
export type Clashes = Schemas["Clashes"];
export type PartSheet = Schemas["PartSheet"];
export type Drawer = Schemas["Drawer"];
export type CutView = Schemas["CutView"];
export type WireView = Schemas["WireView"];
export type Solved = Schemas["Solved"];
export type Row = Schemas["RowView"];
export type BoardView = Schemas["BoardView"];
export type Command = Schemas["Batch"]["commands"][number];
export type Problem = Schemas["ProblemDetails"];
export type Weight = Finding["weight"];
export type CutPanel = CutView["panels"][number];
