/** Contact sheets: every shipped face of outlines in a row of its own under its name, drawn from the exported outlines. */
import { writeFileSync } from 'node:fs';
import { diskFaces } from '../../src/cli/typefaces';
import { checkJob } from '../../src/core/document/read';
import { loadWasmEngine } from '../../src/core/geometry/boolean/engine-wasm';
import { Evaluator } from '../../src/core/job/evaluate';
import { drawingOf, writeFile } from '../../src/core/job/export';
import { isLineFace, SHIPPED_FACES } from '../../src/core/lettering/catalogue';
import { faceOfFamily } from '../../src/core/schema/lettering';

/** What is filled is engraved: the sheets show ink. */
const WORK = [{ what: 'fill', operation: 'engrave' }];
/** The height of a face's name, and how far above the baseline of its row it stands, in mm. */
const NAME_MM = 3;
const NAME_ABOVE_MM = 36;
/** A baseline above the lower edge of its row, and where rows begin, in mm. */
const BASELINE_MM = 18;
export const LEFT_MM = 10;

/** Words in a face as a member of a part. */
export const wordsIn = (text: string, face: string, mm: number, x: number, y: number) => ({
  id: 'words',
  kind: 'lettering',
  placement: { x, y },
  text,
  face,
  size: { by: 'capital', mm },
  align: 'left',
});

type SheetOf = {
  readonly title: string;
  readonly widthMm: number;
  readonly rowMm: number;
  readonly leastWidth?: number;
  /** The parts of a face's row, without their work, given the height of its baseline. */
  readonly row: (face: string, y: number) => readonly (object & { readonly id: string })[];
};

/** Write the sheet as SVG; prints the faults of holding that it has. */
export async function writeFaceSheet(file: string, { title, widthMm, rowMm, leastWidth, row }: SheetOf): Promise<void> {
  const families = SHIPPED_FACES.filter((f) => !isLineFace(f)).map((f) => f.family);
  const faces = await diskFaces(families.map(faceOfFamily), null);
  const height = families.length * rowMm;
  const parts = families.flatMap((face, i) => {
    const y = height - (i + 1) * rowMm + BASELINE_MM;
    const name = { id: 'name', members: [wordsIn(face, 'Poppins', NAME_MM, LEFT_MM, y + NAME_ABOVE_MM)] };
    return [name, ...row(face, y)].map((part) => ({ ...part, id: `${part.id}${i}`, work: WORK }));
  });
  const read = checkJob({ format: 1, title, sheet: { width: widthMm, height, leastWidth: leastWidth ?? null }, parts });
  if (!read.ok) throw new Error(read.sentences.join(' '));
  const result = new Evaluator(await loadWasmEngine()).evaluate(read.job, faces);
  const drawing = drawingOf(read.job, result);
  if (!drawing) throw new Error('Nothing is drawn.');
  writeFileSync(file, writeFile(drawing, 'svg', read.job.export));
  for (const finding of result.findings)
    if (finding.station === 'hold' && finding.severity === 'fault') console.log(finding.sentence);
}
