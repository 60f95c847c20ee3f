/** The work on the sheet: parts in the colours of their operations, as bare outlines, or as cut. */
import { memo } from 'react';
import type { Job } from '@/core/document/schema';
import { DASHES, kindColour } from '@/ui/marks';
import type { CutPieceView, JobView } from '@/worker/view';
import type { Look } from '../state';

import styles from './sheet.module.css';

type Props = {
  readonly job: Job;
  readonly view: JobView;
  readonly cutPieces: readonly CutPieceView[] | null;
  readonly look: Look;
  readonly only: string | null;
};

/** Slanted lines for engraved areas; drawn in screen pixels whatever the zoom. */
export function EngravePattern({ k }: { k: number }) {
  const size = 6 / k;
  return (
    <defs>
      <pattern id="engrave-fill" width={size} height={size} patternUnits="userSpaceOnUse" patternTransform="rotate(30)">
        <rect width={size} height={size} fill="var(--nf-engrave)" fillOpacity={0.12} />
        <rect width={size * 0.22} height={size} fill="var(--nf-engrave)" />
      </pattern>
    </defs>
  );
}

const Area = ({ d, fill, opacity = 1 }: { d: string; fill: string; opacity?: number }) => (
  <path d={d} className={styles.area} fill={fill} fillOpacity={opacity} fillRule="nonzero" />
);

const Line = ({
  d,
  colour,
  dash,
  round,
}: {
  d: string;
  colour: string;
  dash?: string | undefined;
  round?: boolean;
}) => (
  <path
    d={d}
    className={styles.line}
    stroke={colour}
    strokeDasharray={dash}
    strokeLinecap={round ? 'round' : 'butt'}
    strokeWidth={round ? 2.6 : undefined}
  />
);

function Drawing({ job, view, look, only }: Props) {
  const operations = view.operations.filter((o) => (only === null ? true : o.id === only));
  const partById = new Map(view.parts.map((p) => [p.id, p]));
  const worked = new Set(
    view.operations.flatMap((o) => [...o.outlinesOf, ...o.areasOf, ...o.hatchedParts, ...o.linesOf].map((of) => of.id)),
  );
  const outlined = new Set(view.operations.flatMap((o) => [...o.outlinesOf, ...o.areasOf].map((of) => of.id)));
  const references = new Set(job.parts.flatMap((p) => (p.reference ? [p.id] : [])));
  const isOn = (id: string) => job.operations.find((o) => o.id === id)?.on !== false;
  return (
    <>
      {only === null &&
        view.parts.map((part) => {
          const { keep, reference } = job.parts.find((p) => p.id === part.id) ?? {};
          if (reference) return <Area key={part.id} d={part.d} fill="var(--nf-ink)" opacity={0.05} />;
          const outside = keep === 'outside';
          return (
            <Area
              key={part.id}
              d={part.d}
              fill={outside ? 'var(--nf-bench)' : 'var(--nf-stock)'}
              opacity={outside ? 0.75 : 0.8}
            />
          );
        })}
      {only === null &&
        view.parts
          .filter((part) => part.centerline && !outlined.has(part.id))
          .map((part) => <Area key={`${part.id}-guide`} d={part.d} fill="var(--nf-ink)" opacity={0.09} />)}
      {operations.flatMap((o) =>
        o.areasOf.map(({ id, d: own }) => {
          const part = partById.get(id);
          if (!part) return null;
          const d = own ?? part.d;
          // In the finished look an area is simply done.
          const isDone = look === 'worked';
          const fill = isDone ? 'var(--nf-ink)' : o.kind === 'engrave' ? 'url(#engrave-fill)' : kindColour(o.kind);
          return (
            <g key={`${o.id}-${id}-fill`} opacity={isOn(o.id) ? 1 : 0.35}>
              <Area d={d} fill={fill} opacity={isDone || o.kind === 'engrave' ? 1 : 0.4} />
              {!isDone && <Line d={d} colour={kindColour(o.kind)} />}
            </g>
          );
        }),
      )}
      {operations.flatMap((o) =>
        o.outlinesOf.map(({ id, d }) => {
          const part = partById.get(id);
          return (
            part && (
              <g key={`${o.id}-${id}`} opacity={isOn(o.id) ? 1 : 0.35}>
                <Line d={d ?? part.d} colour={kindColour(o.kind)} dash={DASHES[o.kind]} round={o.kind === 'mark'} />
              </g>
            )
          );
        }),
      )}
      {operations.flatMap((o) =>
        o.linesOf.map(({ id, d }) => (
          <g key={`${o.id}-${id}-lines`} opacity={isOn(o.id) ? 1 : 0.35} data-lines={id}>
            <Line d={d} colour={kindColour(o.kind)} round />
          </g>
        )),
      )}
      {only === null &&
        view.parts
          .filter((p) => !worked.has(p.id))
          .map((part) => (
            <g key={part.id} opacity={references.has(part.id) ? 0.45 : 1} data-reference={references.has(part.id)}>
              <Line d={part.d + part.linesD} colour="var(--nf-muted)" />
            </g>
          ))}
    </>
  );
}

/** Tints of pieces: the main one first; pieces that come away take turns. */
const AWAY_TINTS = ['#C8553D', '#2F6F8F', '#7A5C99', '#5B7F3B', '#B0812E', '#8F4A6B'];

/** What stays and what falls, each piece in its own tint; scrap has dropped away. */
function AsCut({ view, pieces }: { view: JobView; pieces: readonly CutPieceView[] }) {
  let away = 0;
  return (
    <>
      {pieces.map((piece, i) => (
        <path
          // biome-ignore lint/suspicious/noArrayIndexKey: pieces have no name of their own
          key={i}
          d={piece.d}
          className={styles.area}
          data-piece={piece.kind}
          fillRule="nonzero"
          fill={piece.kind === 'main' ? 'var(--nf-kept)' : AWAY_TINTS[away++ % AWAY_TINTS.length]}
          fillOpacity={piece.kind === 'main' ? 1 : 0.75}
        />
      ))}
      {view.operations
        .filter((o) => o.kind !== 'cut')
        .flatMap((o) => [
          ...o.areasOf.map(({ id, d }) => ({ o, id, what: 'area', d })),
          ...o.outlinesOf.map(({ id, d }) => ({ o, id, what: 'outline', d })),
          ...o.linesOf.map(({ id, d }) => ({ o, id, what: 'lines', d })),
        ])
        .map(({ o, id, what, d: own }) => {
          const part = view.parts.find((p) => p.id === id);
          if (!part) return null;
          const d = own ?? part.d;
          const key = `${o.id}-${id}-${what}`;
          if (what === 'area') return <Area key={key} d={d} fill="var(--nf-engrave)" opacity={0.8} />;
          return <Line key={key} d={d} colour="var(--nf-ink)" />;
        })}
    </>
  );
}

/** The work on the sheet, as it is looked at. */
export const WorkLayer = memo(function Work(props: Props) {
  if (props.look === 'cut' && props.cutPieces) return <AsCut view={props.view} pieces={props.cutPieces} />;
  if (props.look === 'outlines')
    return (
      <>
        {props.view.parts.map((part) => (
          <Line key={part.id} d={part.d + part.linesD} colour="var(--nf-ink)" />
        ))}
      </>
    );
  return <Drawing {...props} />;
});
