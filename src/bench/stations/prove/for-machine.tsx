/** The files that the job's machine wants, in one press. */
import { Download } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import type { Job } from '@/core/document/schema';
import type { JobMachine } from '@/core/schema/shop/machine';

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
export const namesWords = (names: readonly string[]): string =>
  names.length === 1 ? (names[0] as string) : `${names.length} files`;

/** The files that the job's machine wants, in one press. */
export function ForMachine({
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
