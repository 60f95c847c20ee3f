/** PDF files put together by hand, object by object. */

/** A page: what it draws, and what its dictionary has beside its content. */
export type PdfPage = { readonly content: string; readonly more?: string };

/**
 * A PDF of pages. `objects` are numbered from 10 on, for pages to refer to; `catalog` is put into the catalog. Everything in Latin-1.
 */
export function pdfOf(
  pages: readonly PdfPage[],
  { objects = [], catalog = '' }: { readonly objects?: readonly string[]; readonly catalog?: string } = {},
): Uint8Array {
  const first = 10 + objects.length;
  const numbered = new Map<number, string>([
    [1, `<</Type/Catalog/Pages 2 0 R${catalog}>>`],
    [2, `<</Type/Pages/Count ${pages.length}/Kids[${pages.map((_, i) => `${first + 2 * i} 0 R`).join(' ')}]>>`],
    ...objects.map((body, i): [number, string] => [10 + i, body]),
    ...pages.flatMap(({ content, more = '' }, i): [number, string][] => [
      [
        first + 2 * i,
        `<</Type/Page/Parent 2 0 R/Contents ${first + 2 * i + 1} 0 R${more.includes('/MediaBox') ? '' : '/MediaBox[0 0 72 72]'}${more}>>`,
      ],
      [first + 2 * i + 1, stream(content)],
    ]),
  ]);
  let file = '%PDF-1.7\n';
  const offsets = new Map<number, number>();
  for (const [number, body] of numbered) {
    offsets.set(number, file.length);
    file += `${number} 0 obj\n${body}\nendobj\n`;
  }
  const size = Math.max(...numbered.keys()) + 1;
  const start = file.length;
  const rows = Array.from({ length: size }, (_, i) => {
    const at = offsets.get(i);
    return at === undefined ? '0000000000 65535 f \n' : `${String(at).padStart(10, '0')} 00000 n \n`;
  });
  file += `xref\n0 ${size}\n${rows.join('')}trailer\n<</Size ${size}/Root 1 0 R>>\nstartxref\n${start}\n%%EOF\n`;
  return Uint8Array.from(file, (c) => c.charCodeAt(0));
}

/** A stream, with what its dictionary has beside its length. */
export const stream = (content: string, more = ''): string =>
  `<</Length ${content.length}${more}>>\nstream\n${content}\nendstream`;
