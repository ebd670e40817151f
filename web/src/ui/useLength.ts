/** A length while it is typed: its text, what is wrong with it, and keeping it once the core has read it. */
import { useState } from "react";
import { answered, api } from "../api/client";

interface Typed {
  /** What is being typed; null while nothing is. */
  text: string | null;
  wrong: string | null;
  setText: (text: string) => void;
  commit: () => Promise<void>;
  /** Back to what it was. */
  giveUp: () => void;
}

/** A length in hundredths, as a field shows it. */
export const inField = (mm: number): string => String(Math.round(mm * 100) / 100);

export function useLength(value: number, least: number, onCommit: (mm: number) => void): Typed {
  const [text, setText] = useState<string | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const giveUp = () => {
    setText(null);
    setWrong(null);
  };
  const commit = async () => {
    if (text === null) return;
    try {
      const { mm } = await answered(api.GET("/api/quantity/length", { params: { query: { text } } }));
      if (mm < least) throw new Error(`At least ${least} mm`);
      giveUp();
      if (Math.abs(mm - value) > 1e-6) onCommit(mm);
    } catch (error) {
      setWrong(error instanceof Error ? error.message : "Not a length");
    }
  };
  return { text, wrong, setText, commit, giveUp };
}
