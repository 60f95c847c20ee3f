/** PDF as a format that is read, page by page; also files of drawing programs that are PDFs inside. */
import type { PagedFormat } from '../read-format';

/** Reading PDF. */
export const pdfReader: PagedFormat = {
  word: 'PDF',
  endings: ['.pdf', '.ai'],
  // What stands before the mark is passed over by every reader of PDF.
  recognises: ({ start }) => start.slice(0, 1024).includes('%PDF-'),
  open: async ({ bytes }) => (await import('./document')).openPdf(bytes),
};
