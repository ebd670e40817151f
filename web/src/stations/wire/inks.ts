/** The colour that a wire's insulation is drawn in. */
export const inkOf = (inks: Record<string, string> | undefined, colour: string): string =>
  inks?.[colour] ?? "var(--note)";
