/** How files are written: page, version, unit, how far curves may stray, line width. */
import type { ExportSettings, Job } from '@/core/document/schema';
import { LIMITS } from '@/core/limits';
import { Choice, QuantityField } from '@/ui/fields';
import { Heading } from '@/ui/heading';

/** The settings that all files of a job are written by. */
export function HowWritten({
  job,
  edit,
}: {
  job: Job;
  edit: (recipe: (s: ExportSettings) => void, merge?: string | null) => void;
}) {
  const settings = job.export;
  return (
    <>
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
        label="Seen from"
        value={settings.mirrored ? 'behind' : 'front'}
        options={[
          { value: 'front', word: 'the front', title: 'As it is on the sheet' },
          { value: 'behind', word: 'behind', title: 'Mirrored, for stock that is worked from behind' },
        ]}
        onChange={(from) =>
          edit((s) => {
            s.mirrored = from === 'behind';
          })
        }
      />
      {settings.mirrored && (
        <p className="nf-muted nf-small">
          Files are mirrored, and so called: do not mirror them again at the machine. The sheet stays as seen from the
          front.
        </p>
      )}
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
    </>
  );
}
