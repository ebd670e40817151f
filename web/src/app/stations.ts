/** The stations that exist, with their numbers in the order of the work. */
import type { Finding } from "../api/types";

export interface Station {
  id: Finding["station"];
  number: number;
  name: string;
}

export const STATIONS: readonly Station[] = [
  { id: "brief", number: 1, name: "Brief" },
  { id: "parts", number: 2, name: "Parts" },
  { id: "face", number: 3, name: "Face" },
  { id: "stack", number: 4, name: "Stack" },
  { id: "light", number: 5, name: "Light" },
  { id: "cut", number: 6, name: "Cut" },
  { id: "wire", number: 7, name: "Wire" },
];

export const isStation = (text: string | undefined): text is Station["id"] =>
  STATIONS.some((station) => station.id === text);
