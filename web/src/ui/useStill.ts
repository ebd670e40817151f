/** What is drawn stands still while a button is held down: what a press aims at is there when it is let go. */
import { useState, useSyncExternalStore } from "react";

let held = false;
const told = new Set<() => void>();

function set(now: boolean) {
  held = now;
  told.forEach((tell) => tell());
}

// Only once the click has been given: it goes where the pointer was let go.
const release = () => void setTimeout(() => set(false), 0);
addEventListener("pointerdown", () => set(true), true);
addEventListener("pointerup", release, true);
addEventListener("pointercancel", release, true);

function listen(tell: () => void) {
  told.add(tell);
  return () => void told.delete(tell);
}

/** A value as it was when a press began, until the press ends; else as it is. */
export function useStill<T>(value: T): T {
  const pressed = useSyncExternalStore(listen, () => held);
  const [kept, keep] = useState(value);
  if (!pressed && kept !== value) keep(value);
  return pressed ? kept : value;
}
