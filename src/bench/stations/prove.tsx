import { Download, Package } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { sheetsOf } from '@/core/document/on-sheet';
import { partWords } from '@/core/document/part-words';
import type { ExportSettings, Job } from '@/core/document/schema';
import { WRITTEN_FORMATS, type WrittenFormat } from '@/core/formats/written';
import { isEmptyBox } from '@/core/geometry/point';
import type { ExportScope } from '@/core/job/export';
import { fileName } from '@/core/job/file-names';
import type { MadeFiles } from '@/core/job/files';
import { machineFileNames } from '@/core/job/machine-files';
import { LIMITS } from '@/core/limits';
import { openGroups } from '@/core/rules/groups';
import type { JobMachine } from '@/core/schema/shop/machine';
import { formatLength } from '@/core/units/quantity';
import { takeJobAlong } from '@/taken/take-along';
import { download } from '@/ui/download';
import { Choice, QuantityField, Row } from '@/ui/fields';
import { formatArea, formatRun } from '@/ui/figures';
import { Heading } from '@/ui/heading';
import { OperationMark } from '@/ui/marks';
import { today } from '@/ui/when';
import { computing } from '@/worker/client';
import styles from '../bench.module.css';
import { useBeside } from '../beside';
import { change, selectedParts, useBench } from '../store';
import { FileNames } from './file-names';

/** What the job's machine reads, in words: "DXF 2000 in mm, arcs and lines, one file for each operation". */
function readsWords({ file }: JobMachine): string {
  const format = file.format === 'hpgl' ? 'plotter files' : file.format.toUpperCase();
  // Files for plotters have pens in place of both.
  const isDrawn = file.format !== 'hpgl';
  const curves = { curves: null, arcs: 'arcs and lines', lines: 'lines alone' }[file.curves];
  return [
    file.format === 'dxf' ? `${format} ${file.dxf} in ${file.unit}` : format,
    curves,
    isDrawn && file.colours && 'colours of its own',
    isDrawn && file.layers && 'layer names of its own',
    file.perOperation && 'one file for each operation',
    file.mostSegments !== null && `at most ${file.mostSegments.toLocaleString('en')} segments`,
  ]
    .filter(Boolean)
    .join(', ');
}

/** The name of a file, or how many there are. */
const namesWords = (names: readonly string[]): string =>
  names.length === 1 ? (names[0] as string) : `${names.length} files`;

/** The files that the job's machine wants, in one press. */
function ForMachine({
  job,
  about,
  isOff,
  onWrite,
}: {
  job: Job;
  /** What is written, in words. */
  about: string;
  isOff: boolean;
  onWrite: () => void;
}) {
  const { machine } = job;
  return (
    <>
      {machine && (
        <>
          <Button
            variant="primary"
            className="w-100 d-flex justify-content-between align-items-center gap-2"
            disabled={isOff}
            onClick={onWrite}
            aria-label={`Write for ${machine.name}`}
          >
            <span className="text-truncate flex-shrink-0" style={{ maxWidth: '60%' }}>
              For {machine.name}
            </span>
            <span className="nf-small fw-normal text-truncate">{about}</span>
            <Download size={15} aria-hidden="true" className="flex-shrink-0" />
          </Button>
          <p className="nf-muted nf-small mt-1 mb-1">It reads {readsWords(machine)}.</p>
        </>
      )}
      <p className="nf-muted nf-small mb-1">
        Files are drawings: the machine’s own program makes its moves of them. Speed, power, passes and depth are
        written beside the lines to be read, since no drawing carries them to a machine.
      </p>
    </>
  );
}

const COUNTS = ['none', 'one', 'two', 'three', 'four', 'five', 'six'];
const counted = (n: number): string => COUNTS[n] ?? `${n}`;

function Figures() {
  const job = useBench((s) => s.job);
  const view = useBeside((view) => view);
  const open = openGroups(view?.findings ?? []);
  const faults = open.filter((f) => f.severity === 'fault').length;
  const runs = new Map(useBench((s) => s.run)?.operations.map((o) => [o.id, o]));
  const worked = (view?.operations ?? []).filter(
    (o) => (o.paths > 0 || o.fillMm2 > 0) && job.operations.find((x) => x.id === o.id)?.on,
  );
  const n = (mm: number) => formatLength(mm, job.units);
  return (
    <>
      <Heading>What is in the file</Heading>
      {worked.length === 0 && <p className="nf-muted nf-small">Nothing is given to an operation that is on.</p>}
      <table className={styles.table}>
        <tbody>
          {view && !isEmptyBox(view.workBox) && (
            <tr>
              <th scope="row">Size of the work</th>
              <td className="nf-figure">
                {n(view.workBox.maxX - view.workBox.minX)} × {n(view.workBox.maxY - view.workBox.minY)}
              </td>
            </tr>
          )}
          {worked.map((o) => (
            <tr key={o.id}>
              <th scope="row">
                <OperationMark kind={o.kind} /> {job.operations.find((x) => x.id === o.id)?.name}
              </th>
              <td className="nf-figure">
                {[
                  o.paths > 0 ? formatRun(o.lengthMm, job.units) : '',
                  o.fillMm2 > 0 ? formatArea(o.fillMm2, job.units) : '',
                ]
                  .filter(Boolean)
                  .join(' · ')}
                {o.paths > 1 && (
                  <>
                    <div className="nf-muted">set down {o.paths.toLocaleString('en')} times</div>
                    {runs.has(o.id) && (
                      <div className="nf-muted">
                        {formatRun(runs.get(o.id)?.travelMm ?? 0, job.units)} moved between
                      </div>
                    )}
                  </>
                )}
                {o.dots.map(({ diameterMm, count }) => (
                  <div key={diameterMm ?? 'points'} className="nf-muted">
                    {count.toLocaleString('en')}{' '}
                    {diameterMm === null ? 'points' : `dots of ${formatLength(diameterMm, job.units, 2)}`}
                  </div>
                ))}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {faults > 0 && (
        <p className="nf-small text-danger mb-0" role="status">
          {faults === 1 ? 'One fault is' : `${faults} faults are`} still open; see Findings on the right.
        </p>
      )}
    </>
  );
}

/** The media type of a file, by the ending of its name. */
const typeOf = (name: string): string => WRITTEN_FORMATS.find((f) => name.endsWith(`.${f.ending}`))?.type ?? '';

/** Figures, how files are written, and the files. */
export function Prove() {
  const job = useBench((s) => s.job);
  const view = useBeside((view) => view);
  const selection = useBench((s) => s.selection);
  const [onlySelected, setOnlySelected] = useState(false);
  const [isEverySheet, setEverySheet] = useState(true);
  const sheets = sheetsOf(job);
  const isEvery = isEverySheet && sheets.length > 1;
  const [state, setState] = useState<{ busy: boolean; words: string | null; bad?: boolean }>({
    busy: false,
    words: null,
  });
  const settings = job.export;
  const chosen = job.parts.filter((p) => selectedParts(selection).includes(p.id));
  const [part] = chosen;
  const scope = { partIds: onlySelected && part ? chosen.map((p) => p.id) : null, date: today() };
  const nothing = !view || isEmptyBox(view.workBox);

  const edit = (recipe: (s: ExportSettings) => void, merge: string | null = null) =>
    change((draft) => void recipe(draft.export), merge);

  const write = async (make: (now: ExportScope) => Promise<MadeFiles>) => {
    setState({ busy: true, words: 'Writing …' });
    try {
      // The day it is now: a bench may be open overnight.
      const { files, refused } = await make({ ...scope, date: today() });
      if (refused.length > 0) return setState({ busy: false, words: refused.join(' '), bad: true });
      if (files.length === 0)
        return setState({
          busy: false,
          words: 'There is nothing to write: no part is given to an operation that is on.',
          bad: true,
        });
      for (const { name, bytes } of files) download(name, bytes, typeOf(name));
      setState({ busy: false, words: `Written: ${files.map((f) => f.name).join(', ')}` });
    } catch (reason) {
      setState({
        busy: false,
        bad: true,
        words: `The file could not be written: ${reason instanceof Error ? reason.message : 'unknown'}.`,
      });
    }
  };

  const writeAs = (formats: readonly WrittenFormat[]) =>
    write((now) =>
      computing().files(
        job,
        formats.map((f) => f.id),
        now,
        isEvery,
      ),
    );
  const drawing = (view?.operations ?? [])
    .filter((o) => (o.paths > 0 || o.fillMm2 > 0) && job.operations.find((x) => x.id === o.id)?.on)
    .map((o) => o.id);

  const take = async () => {
    setState({ busy: true, words: 'Packing …' });
    try {
      setState({ busy: false, words: await takeJobAlong(job) });
    } catch (reason) {
      const why = reason instanceof Error ? reason.message : 'unknown';
      setState({ busy: false, bad: true, words: `The job could not be packed: ${why}.` });
    }
  };

  return (
    <>
      <Figures />
      <Heading>How files are written</Heading>
      <Choice
        label="Page"
        value={settings.page}
        options={[
          { value: 'work', word: 'fits the work', title: 'The corner of the work is the origin' },
          { value: 'sheet', word: 'the sheet', title: 'The corner of the sheet is the origin' },
        ]}
        onChange={(page) =>
          edit((s) => {
            s.page = page;
          })
        }
      />
      <Choice
        label="DXF version"
        value={settings.dxf}
        options={[
          { value: 'R12', word: 'R12' },
          { value: '2000', word: '2000' },
          { value: '2007', word: '2007' },
        ]}
        onChange={(dxf) =>
          edit((s) => {
            s.dxf = dxf;
          })
        }
      />
      <Choice
        label="DXF unit"
        value={settings.dxfUnit}
        options={[
          { value: 'mm', word: 'mm' },
          { value: 'in', word: 'in' },
        ]}
        onChange={(dxfUnit) =>
          edit((s) => {
            s.dxfUnit = dxfUnit;
          })
        }
      />
      {settings.dxf === 'R12' && settings.dxfUnit === 'in' && (
        <p className="nf-muted nf-small">R12 has no place to say the unit: tell your machine that it is inches.</p>
      )}
      <Choice
        label="HPGL origin"
        value={settings.plotterOrigin}
        options={[
          { value: 'corner', word: 'corner', title: '0, 0 is the lower left corner of the work' },
          { value: 'middle', word: 'middle', title: '0, 0 is the middle of the work' },
          { value: 'placed', word: 'as placed', title: '0, 0 is the lower left corner of the sheet' },
        ]}
        onChange={(plotterOrigin) =>
          edit((s) => {
            s.plotterOrigin = plotterOrigin;
          })
        }
      />
      <QuantityField
        label="Curves within"
        unit={job.units}
        digits={job.units === 'mm' ? 3 : 4}
        stepMm={job.units === 'mm' ? 0.01 : 0.0254}
        value={settings.arcTolerance}
        least={LIMITS.arcToleranceLeastMm}
        most={LIMITS.arcToleranceMostMm}
        onChange={(mm) =>
          edit((s) => {
            s.arcTolerance = mm;
          }, 'arc-tolerance')
        }
      />
      <QuantityField
        label="Marks within"
        unit={job.units}
        digits={job.units === 'mm' ? 3 : 4}
        stepMm={job.units === 'mm' ? 0.01 : 0.0254}
        value={settings.markTolerance}
        least={LIMITS.arcToleranceLeastMm}
        most={LIMITS.arcToleranceMostMm}
        onChange={(mm) =>
          edit((s) => {
            s.markTolerance = mm;
          }, 'mark-tolerance')
        }
      />
      <QuantityField
        label="Line width"
        unit={job.units}
        digits={job.units === 'mm' ? 3 : 4}
        stepMm={job.units === 'mm' ? 0.025 : 0.0254}
        value={settings.lineWidth}
        least={0.001}
        most={10}
        onChange={(mm) =>
          edit((s) => {
            s.lineWidth = mm;
          }, 'line-width')
        }
      />
      {part && (
        <Row label="Parts">
          <Form.Check
            type="switch"
            id="only-selected"
            label={`only ${chosen.length > 1 ? `the ${chosen.length} chosen` : partWords(part)}`}
            checked={onlySelected}
            onChange={(e) => setOnlySelected(e.target.checked)}
          />
        </Row>
      )}
      {sheets.length > 1 && (
        <Row label="Sheets">
          <Form.Check
            type="switch"
            id="every-sheet"
            label={`a file for each of the ${sheets.length}`}
            checked={isEverySheet}
            onChange={(e) => setEverySheet(e.target.checked)}
          />
        </Row>
      )}
      <FileNames job={job} scope={scope} edit={edit} />
      <Heading beside="true size">Files</Heading>
      <ForMachine
        job={job}
        about={
          isEvery ? `a set for each of ${sheets.length} sheets` : namesWords(machineFileNames(job, drawing, scope))
        }
        isOff={nothing || state.busy}
        onWrite={() => void write((now) => computing().machineFiles(job, now, isEvery))}
      />
      {WRITTEN_FORMATS.map((format) => (
        <Button
          key={format.id}
          variant="plain"
          className="w-100 mb-1 d-flex justify-content-between align-items-center gap-2"
          disabled={nothing || state.busy}
          onClick={() => void writeAs([format])}
          aria-label={`Write ${format.word}`}
        >
          <span>{format.word}</span>
          <span className="nf-muted nf-small fw-normal text-truncate">
            {isEvery ? `${sheets.length} files` : fileName(job, format.id, scope)}
          </span>
          <Download size={15} aria-hidden="true" className="flex-shrink-0" />
        </Button>
      ))}
      <Button
        variant={job.machine ? 'plain' : 'primary'}
        className="w-100 mt-1"
        disabled={nothing || state.busy}
        onClick={() => void writeAs(WRITTEN_FORMATS)}
      >
        Write all {counted(WRITTEN_FORMATS.length)}
      </Button>
      <Heading beside="in one file">The whole job</Heading>
      <Button
        variant="plain"
        className="w-100"
        title="With its drawings, pictures and typefaces, to be opened in another Needlefile"
        disabled={state.busy}
        onClick={() => void take()}
      >
        <Package size={14} className="me-1" aria-hidden="true" />
        Take the job along
      </Button>
      {state.words && (
        <p
          // What came of it is not left below the edge.
          ref={(words) => void words?.scrollIntoView({ block: 'nearest' })}
          role="status"
          className={`nf-small mt-2 mb-0 ${state.bad ? 'text-danger' : 'nf-muted'}`}
        >
          {state.words}
        </p>
      )}
    </>
  );
}
