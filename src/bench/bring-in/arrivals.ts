/** Files dropped on the window, and drawings pasted into it. */
import { useEffect } from 'react';
import { bringIn, bringInFiles } from './bring-in';

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName));

/** Whether pasted words look like a drawing. */
const isDrawing = (text: string): boolean => /<svg[\s>]/i.test(text) || /^\s*0\s*\r?\n\s*SECTION/.test(text);

/** Listens for files that are dropped on the page or pasted into it. */
export function useArrivals(): void {
  useEffect(() => {
    const over = (event: DragEvent) => {
      if (event.dataTransfer?.types.includes('Files')) event.preventDefault();
    };
    const drop = (event: DragEvent) => {
      const files = [...(event.dataTransfer?.files ?? [])];
      if (files.length === 0) return;
      event.preventDefault();
      void bringInFiles(files);
    };
    const paste = (event: ClipboardEvent) => {
      if (isTyping(event.target)) return;
      const files = [...(event.clipboardData?.files ?? [])];
      const text = event.clipboardData?.getData('text/plain') ?? '';
      if (files.length === 0 && !isDrawing(text)) return;
      event.preventDefault();
      void (files.length > 0 ? bringInFiles(files) : bringIn('Pasted drawing', new TextEncoder().encode(text)));
    };
    window.addEventListener('dragover', over);
    window.addEventListener('drop', drop);
    window.addEventListener('paste', paste);
    return () => {
      window.removeEventListener('dragover', over);
      window.removeEventListener('drop', drop);
      window.removeEventListener('paste', paste);
    };
  }, []);
}
