/** Puts the typing mark into the words of the selected lettering, once its panel is drawn. */
import { goToStation } from './store';

/** Go to the words of what is chosen, ready to type. */
export function focusWords(): void {
  goToStation('compose');
  requestAnimationFrame(() => document.querySelector<HTMLTextAreaElement>('textarea[data-words]')?.focus());
}
