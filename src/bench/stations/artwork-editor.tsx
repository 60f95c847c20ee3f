/** What a brought-in drawing measures, and its file. */
import { Download } from 'lucide-react';
import { memberOf } from '@/core/commands/changed';
import type { Artwork } from '@/core/document/schema';
import { boxHeight, boxWidth, isEmptyBox } from '@/core/geometry/point';
import { LIMITS } from '@/core/limits';
import { QuantityField } from '@/ui/fields';
import { Heading } from '@/ui/heading';
import { useBeside } from '../beside';
import { change, useBench } from '../store';

/** The panel of a drawing. */
export function ArtworkEditor({ partId, member }: { partId: string; member: Artwork }) {
  const units = useBench((s) => s.job.units);
  const own = useBeside(
    (view) => view?.parts.find((p) => p.id === partId)?.members.find((m) => m.id === member.id)?.ownBox,
  );
  const resize = (now: number, wanted: number) =>
    change((job) => {
      const draft = memberOf(job, partId, member.id);
      if (draft?.kind === 'artwork' && now > 0) draft.scale *= wanted / now;
    }, `size:${member.id}`);
  return (
    <>
      <Heading>Drawing</Heading>
      <p className="mb-2 text-break">{member.name || 'Without a name'}</p>
      {own && !isEmptyBox(own) && (
        <>
          <QuantityField
            label="Width"
            unit={units}
            value={boxWidth(own)}
            least={0.01}
            most={LIMITS.sheetMostMm}
            onChange={(mm) => resize(boxWidth(own), mm)}
          />
          <QuantityField
            label="Height"
            unit={units}
            value={boxHeight(own)}
            least={0.01}
            most={LIMITS.sheetMostMm}
            onChange={(mm) => resize(boxHeight(own), mm)}
          />
          <p className="nf-muted nf-small">Proportions are kept.</p>
        </>
      )}
      {member.original && (
        <a className="nf-small" href={`/api/assets/${member.original}`} download={member.name || true}>
          <Download size={13} className="me-1" aria-hidden="true" />
          The file as it came
        </a>
      )}
    </>
  );
}
