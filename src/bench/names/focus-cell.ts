/** Cells of the table of names by their place. */

/** The id of a cell's field in the page. */
export const cellId = (nth: number, column: number): string => `name-${nth}-${column}`;

const fieldAt = (nth: number, column: number): HTMLInputElement | null => {
  const field = document.getElementById(cellId(nth, column));
  return field instanceof HTMLInputElement ? field : null;
};

/** Go on typing in a cell that is there, behind what is in it. */
export function focusNow(nth: number, column: number): void {
  const field = fieldAt(nth, column);
  field?.focus();
  field?.setSelectionRange(field.value.length, field.value.length);
}

/** Go to a cell once it is there; what is in it is chosen, to be typed over. */
export function focusCell(nth: number, column: number): void {
  requestAnimationFrame(() =>
    requestAnimationFrame(() => {
      const field = fieldAt(nth, column);
      field?.focus();
      field?.select();
    }),
  );
}
