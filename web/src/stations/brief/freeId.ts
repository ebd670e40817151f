/** The first id of that stem that nothing has yet: `sheet-1`, `sheet-2` … */
export const freeId = (taken: readonly { id: string }[], stem: string): string => {
  let n = 1;
  while (taken.some((t) => t.id === `${stem}-${n}`)) n += 1;
  return `${stem}-${n}`;
};
