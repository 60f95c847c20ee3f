/** Draws the starters that ship, so that they come with the page: part of building the app. Takes the file to write. */
import { diskFaces } from '../src/cli/typefaces';
import { scriptEngine } from '../src/core/geometry/boolean/engine-script';
import { loadWasmEngine } from '../src/core/geometry/boolean/engine-wasm';
import { Evaluator } from '../src/core/job/evaluate';
import { pictureOf } from '../src/core/job/picture';
import { asBegun } from '../src/core/job/start';
import { finished } from '../src/core/memo';
import { facesOf } from '../src/core/schema/lettering';
import { STARTERS } from '../src/core/starters/starters';
import { writeWhole } from './lib/written.mjs';

const [, , file] = process.argv;
if (!file) throw new Error('The file to write is missing.');
const named = STARTERS.flatMap(({ job }) =>
  job.parts.flatMap((part) => part.members.flatMap((m) => (m.kind === 'lettering' ? facesOf(m) : []))),
);
const faces = await diskFaces(named, null);
const evaluator = new Evaluator(await loadWasmEngine().catch(() => scriptEngine));
const pictures = STARTERS.map(({ id, job }) => {
  const begun = asBegun(job, { evaluator, faces });
  return [id, finished(pictureOf(begun, evaluator.evaluate(begun, faces)))];
});
writeWhole(file, JSON.stringify(Object.fromEntries(pictures)));
