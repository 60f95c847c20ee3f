/** Words on papers, as outlines: any script that one of the faces has; a letter that none has stands as its number. */

import { type Path, transformPath } from '../geometry/path';
import type { Matrix } from '../geometry/point';
import type { Typeface } from '../lettering/face';

/** Faces that words on papers are set in: of each weight several, asked for a letter in turn. */
export type PaperFaces = { readonly plain: readonly Typeface[]; readonly bold: readonly Typeface[] };

/** Words set in one line: outlines from the start of their baseline, and how far they reach, in mm. */
export type SetWords = { readonly paths: readonly Path[]; readonly widthMm: number };

/** The face that has a letter, by its number among the faces; -1 for none. */
function facesHaving(faces: readonly Typeface[]): (letter: string) => number {
  const have = faces.map((face) => new Set(face.characters()));
  return (letter) => have.findIndex((set) => set.has(letter.codePointAt(0) ?? 0));
}

const isRtl = (text: string): boolean => /[\p{Script=Hebrew}\p{Script=Arabic}]/u.test(text);

/** One line of words in letters so high, from baseline to the top of the em, in mm. */
export function wordOutlines(faces: readonly Typeface[], text: string, sizeMm: number): SetWords {
  const faceOf = facesHaving(faces);
  const runs: { face: number; text: string }[] = [];
  for (const letter of text.normalize('NFC')) {
    const at = faceOf(letter);
    const shown = at >= 0 ? letter : `[U+${(letter.codePointAt(0) ?? 0).toString(16).toUpperCase().padStart(4, '0')}]`;
    const face = Math.max(0, at);
    const last = runs[runs.length - 1];
    if (last && last.face === face) last.text += shown;
    else runs.push({ face, text: shown });
  }
  const paths: Path[] = [];
  let x = 0;
  for (const run of runs) {
    const face = faces[run.face];
    if (!face) continue;
    const k = sizeMm / face.unitsPerEm;
    for (const g of face.shape(run.text, isRtl(run.text) ? 'rtl' : 'ltr', { ligatures: false, features: [] })) {
      const matrix: Matrix = { a: k, b: 0, c: 0, d: k, e: x + k * g.dx, f: k * g.dy };
      for (const path of face.outline(g.glyph)) paths.push(transformPath(path, matrix));
      x += k * g.advance;
    }
  }
  return { paths, widthMm: x };
}

/** Words broken into lines no wider than so many mm, at spaces; a word that is wider has a line of its own. */
export function brokenLines(faces: readonly Typeface[], text: string, sizeMm: number, mostMm: number): string[] {
  const out: string[] = [];
  for (const paragraph of text.split('\n')) {
    let line = '';
    for (const word of paragraph.split(' ')) {
      const longer = line === '' ? word : `${line} ${word}`;
      if (line !== '' && wordOutlines(faces, longer, sizeMm).widthMm > mostMm) {
        out.push(line);
        line = word;
      } else line = longer;
    }
    out.push(line);
  }
  return out;
}
