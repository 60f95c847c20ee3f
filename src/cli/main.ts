/** The headless command: `bin/needlefile prepare job.json --out DIR …`. */
import { parseArgs } from 'node:util';
import { type FileFormat, WRITTEN_FORMATS } from '../core/formats/written';
import { isDay } from '../core/units/day';
import { check } from './check';
import { type ExitCode, prepare } from './prepare';
import { prepareFolder } from './watch';

const FORMATS = WRITTEN_FORMATS.map((f) => f.id);

const USAGE = `Needlefile prepares lettering for machine output.

  needlefile prepare JOB [--out DIR] [--formats svg,dxf,pdf,hpgl] [--report REPORT.json]
                         [--typefaces DIR] [--drawings DIR] [--date 2026-05-04] [--machine MACHINE.json]
                         [--roster NAMES.csv] [--strict]

  needlefile prepare FOLDER --watch --out DIR [what else prepare takes]

  needlefile check FILE ... [--machine MACHINE.json] [--job JOB [--row N] [--typefaces DIR]
                   [--drawings DIR]] [--json]

Prepare makes the files of a job:

  JOB              a job document (.json), or a job taken along (.needlefile) with all that came with it
  --out DIR        folder for the files (made when missing)
  --formats LIST   which files: svg, dxf, pdf, hpgl; all when left out
  --report FILE    write a report as JSON
  --typefaces DIR  more typefaces, of every kind the bench takes, by content or family name
  --drawings DIR   brought-in drawings, each ID.json, and pictures that are traced, each ID.png; the folder of the job
                   when left out
  --date DATE      the day the files are given out, which they keep, and have in their names where the job asks for it;
                   without it the same job gives the same bytes whenever it is prepared
  --machine FILE   run it on this machine in place of its own: a machine as JSON, as documents have it; times in the
                   report are its
  --roster FILE    a list of names in the place of the job’s own: files of each row, named by it, and a list of what is
                   where; the report is by row
  --strict         end with 1 when a finding would spoil the work; where it was never said, what is cut is to hang
                   together

  --watch          prepare all jobs of a folder, and each that comes or changes, until Ctrl C; files and report go
                   into a folder for each job. Nothing is started anew for each: jobs after the first take less time

Files are read back before they are given out: all of them are written, or none.

Check says what a machine understands of files, of whatever program: operations in the order they are run, with
their length and the way between, what is passed over, and the size.

  FILE             an SVG, DXF, PDF or plotter file
  --machine FILE   hold them against this machine: format, curves, bed, colours or layers it reads, areas
  --job JOB        hold them against what this job means now, thing by thing, and against its machine unless another is
                   given; what is set for its operations says how long they take
  --row N          hold them against this row of the job’s list of names, from 1
  --json           as JSON

Ends with 0 when done, 1 as said above, when a file read back is not what is drawn or one that is checked would not run
as meant, 2 when the input can't be used.`;

const say = (line: string) => process.stdout.write(`${line}\n`);
const complain = (line: string) => process.stderr.write(`${line}\n`);

async function main(args: string[]): Promise<ExitCode> {
  let parsed: ReturnType<typeof parse>;
  try {
    parsed = parse(args);
  } catch (reason) {
    complain(`${(reason as Error).message}\n\n${USAGE}`);
    return 2;
  }
  const { values, positionals } = parsed;
  if (values.help || positionals.length === 0) {
    say(USAGE);
    return positionals.length === 0 && !values.help ? 2 : 0;
  }
  const [command, job, ...further] = positionals;
  const astray = command && optionAstray(command, values);
  if (astray) {
    complain(astray);
    return 2;
  }
  const row = values.row === undefined ? null : Number(values.row);
  if (row !== null && !Number.isInteger(row)) {
    complain(`“${values.row}” is no row: write it as a number, from 1.`);
    return 2;
  }
  if (command === 'check' && job)
    return check(
      {
        files: [job, ...further],
        machine: values.machine ?? null,
        json: values.json ?? false,
        job: values.job
          ? { job: values.job, row, typefaces: values.typefaces ?? null, assets: values.drawings ?? null }
          : null,
      },
      say,
      complain,
    );
  if (command !== 'prepare' || !job || further.length > 0) {
    complain(`Say “prepare” and one job document, or “check” and files.\n\n${USAGE}`);
    return 2;
  }
  const formats = (values.formats ?? FORMATS.join(','))
    .split(',')
    .map((f) => f.trim().toLowerCase())
    .filter(Boolean);
  const unknown = formats.find((f) => !(FORMATS as readonly string[]).includes(f));
  if (unknown !== undefined) {
    complain(
      `“${unknown}” is not a format this version writes: use ${FORMATS.slice(0, -1).join(', ')} or ${FORMATS.at(-1)}.`,
    );
    return 2;
  }
  const date = values.date ?? null;
  if (date !== null && !isDay(date)) {
    complain(`“${date}” is no day: write it as 2026-05-04.`);
    return 2;
  }
  const options = {
    date,
    job,
    out: values.out ?? null,
    formats: formats as FileFormat[],
    report: values.report ?? null,
    typefaces: values.typefaces ?? null,
    assets: values.drawings ?? null,
    machine: values.machine ?? null,
    roster: values.roster ?? null,
    strict: values.strict ?? false,
  };
  if (!values.watch) return prepare(options, say, complain);
  const until = new AbortController();
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => until.abort());
  return prepareFolder(options, { say, complain, until: until.signal });
}

/** What each command takes; for files that are checked some of it with a job alone. */
const TAKES: Readonly<Record<string, readonly string[]>> = {
  prepare: ['out', 'formats', 'report', 'typefaces', 'drawings', 'date', 'machine', 'roster', 'strict', 'watch'],
  check: ['machine', 'json', 'job'],
};
const WITH_JOB = ['row', 'typefaces', 'drawings'];

/** A sentence about an option that a command would pass over; null where there is none. */
function optionAstray(command: string, values: Readonly<Record<string, unknown>>): string | null {
  const takes = TAKES[command];
  const taken = values.job !== undefined && command === 'check' ? [...(takes ?? []), ...WITH_JOB] : takes;
  const astray = taken && Object.keys(values).find((name) => !taken.includes(name));
  if (!astray) return null;
  const isForJob = command === 'check' && WITH_JOB.includes(astray);
  return isForJob
    ? `“--${astray}” is of the job that files are held against: say that with --job.`
    : `“${command}” does not take “--${astray}”.`;
}

const parse = (args: string[]) =>
  parseArgs({
    args,
    allowPositionals: true,
    options: {
      out: { type: 'string' },
      formats: { type: 'string' },
      report: { type: 'string' },
      typefaces: { type: 'string' },
      drawings: { type: 'string' },
      date: { type: 'string' },
      machine: { type: 'string' },
      roster: { type: 'string' },
      row: { type: 'string' },
      job: { type: 'string' },
      strict: { type: 'boolean' },
      watch: { type: 'boolean' },
      json: { type: 'boolean' },
      help: { type: 'boolean', short: 'h' },
    },
  });

// Whoever reads what is said may have read enough: the work is done all the same.
for (const stream of [process.stdout, process.stderr])
  stream.on('error', (reason: NodeJS.ErrnoException) => {
    if (reason.code !== 'EPIPE') throw reason;
  });

main(process.argv.slice(2)).then(
  (code) => {
    process.exitCode = code;
  },
  (reason: unknown) => {
    complain(`Something went wrong: ${reason instanceof Error ? reason.message : String(reason)}`);
    process.exitCode = 2;
  },
);
