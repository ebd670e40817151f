/** The colours of what a part fills, seen from the side. */
export const SOLIDS: Record<string, string> = {
  front: "#4B565A",
  bush: "#B9A878",
  nut: "#8A7B4E",
  key: "#5E676B",
  body: "#8C9499",
};
