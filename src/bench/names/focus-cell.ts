/** Cells of the table of names by their place. */

/** The id of a cell's field in the page. */
export const cellId = (nth: number, column: number): string => `name-${nth}-${column}`;

/** Go to a cell once it is there; what is in it is chosen, to be typed over. */
export function focusCell(nth: number, column: number): void {
  requestAnimationFrame(() =>
    requestAnimationFrame(() => {
      const field = document.getElementById(cellId(nth, column));
      if (!(field instanceof HTMLInputElement)) return;
      field.focus();
      field.select();
    }),
  );
}
