/** Enter and Space on something drawn do what a click does. */
export const press = (act: () => void) => (event: React.KeyboardEvent) => {
  if (event.key !== "Enter" && event.key !== " ") return;
  event.preventDefault();
  event.stopPropagation();
  act();
};
