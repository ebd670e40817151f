/** What sheets are made of. */
export const MATERIALS = [
  ["acrylic", "Acrylic"],
  ["plywood", "Plywood"],
  ["hardboard", "Hardboard"],
  ["mdf", "MDF"],
  ["aluminium", "Aluminium"],
  ["steel", "Steel"],
  ["abs", "ABS"],
  ["polycarbonate", "Polycarbonate"],
  ["pvc", "PVC: never under a laser"],
] as const;
