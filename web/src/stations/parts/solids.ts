/** The colours of what a part fills, seen from the side. */
export const SOLIDS: Record<string, string> = {
  front: "var(--body-front)",
  bush: "var(--brass)",
  nut: "var(--brass-dark)",
  key: "var(--metal-edge)",
  body: "var(--body)",
};
