/** Money in minor units as it is shown and typed. */
export const money = (minor: number, currency: string): string => `${(minor / 100).toFixed(2)} ${currency}`;
