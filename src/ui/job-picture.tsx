import type { Picture } from '@/core/job/picture';
import { kindColour, SMALL_DASHES } from './marks';

/** A job's true drawing at the size of its box. */
export function JobPicture({ picture, title }: { picture: Picture; title: string }) {
  const margin = Math.max(picture.width, picture.height) * 0.03;
  return (
    <svg
      role="img"
      aria-label={`Drawing of ${title}`}
      viewBox={`${-margin} ${-margin} ${picture.width + 2 * margin} ${picture.height + 2 * margin}`}
      preserveAspectRatio="xMidYMid meet"
    >
      <rect
        width={picture.width}
        height={picture.height}
        fill="var(--nf-sheet)"
        stroke="var(--nf-line)"
        vectorEffect="non-scaling-stroke"
      />
      {picture.shapes.map((shape, i) => {
        const colour = shape.kind === 'none' ? 'var(--nf-muted)' : kindColour(shape.kind);
        return (
          <path
            // biome-ignore lint/suspicious/noArrayIndexKey: shapes have no other name and never move
            key={i}
            d={shape.d}
            fill={shape.fill ? colour : 'none'}
            fillOpacity={shape.fill ? 0.75 : undefined}
            fillRule="nonzero"
            stroke={shape.fill ? 'none' : colour}
            strokeWidth={1.2}
            strokeDasharray={shape.kind === 'none' ? undefined : SMALL_DASHES[shape.kind]}
            vectorEffect="non-scaling-stroke"
          />
        );
      })}
    </svg>
  );
}
