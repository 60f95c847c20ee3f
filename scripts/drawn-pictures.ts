/**
 * Draws the pictures that come with pages: of the starters that ship, and those of the help. Part of building the app. Takes the file to
 * write.
 */
import { diskFaces } from '../src/cli/typefaces';
import type { Job } from '../src/core/document/schema';
import { scriptEngine } from '../src/core/geometry/boolean/engine-script';
import { loadWasmEngine } from '../src/core/geometry/boolean/engine-wasm';
import { Evaluator } from '../src/core/job/evaluate';
import { pictureOf } from '../src/core/job/picture';
import { asBegun } from '../src/core/job/start';
import { finished } from '../src/core/memo';
import { facesOf } from '../src/core/schema/lettering';
import { STARTERS } from '../src/core/starters/starters';
import { HELP_PICTURES } from '../src/help/pictures';
import { writeWhole } from './lib/written.mjs';

const [, , file] = process.argv;
if (!file) throw new Error('The file to write is missing.');
const helpJobs = Object.entries(HELP_PICTURES).flatMap(([station, jobs]) =>
  jobs.map((job, i): [string, Job] => [`${station}-${i}`, job]),
);
const named = [...STARTERS.map(({ job }) => job), ...helpJobs.map(([, job]) => job)].flatMap((job) =>
  job.parts.flatMap((part) => part.members.flatMap((m) => (m.kind === 'lettering' ? facesOf(m) : []))),
);
const faces = await diskFaces(named, null);
const evaluator = new Evaluator(await loadWasmEngine().catch(() => scriptEngine));
const drawn = (job: Job) => finished(pictureOf(job, evaluator.evaluate(job, faces)));
writeWhole(
  file,
  JSON.stringify({
    starters: Object.fromEntries(STARTERS.map(({ id, job }) => [id, drawn(asBegun(job, { evaluator, faces }))])),
    help: Object.fromEntries(helpJobs.map(([id, job]) => [id, drawn(job)])),
  }),
);
