import type { components } from "../../api/schema.gen";

export type Views = components["schemas"]["FaceViews"];
export type ReferenceLies = components["schemas"]["ReferenceView"];
export type Reference = components["schemas"]["Reference"];
export type SetReference = (changes: Partial<Reference>) => void;
