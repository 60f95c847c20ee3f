import type { Picture } from '@/core/job/picture';
import { kindColour, SMALL_DASHES } from './marks';

/** Work that takes less of its sheet than this, across and upright, is shown larger than it. */
const SMALL = 0.5;
/** Room around what is shown, as a share of it. */
const ROOM = { sheet: 0.03, work: 0.2 };

/** Room that several pictures of the same size are seen in, in mm. */
type Within = { readonly width: number; readonly height: number };

/** What is shown: of one among several as much around the work as of the others; else the sheet, or of small work as much of it as lies around that. */
function seenOf(
  { width, height, work }: Picture,
  within: Within | null,
): { x: number; y: number; width: number; height: number } {
  if (within && work) {
    const margin = ROOM.work * Math.min(within.width, within.height);
    const [wide, high] = [within.width + 2 * margin, within.height + 2 * margin];
    return {
      x: work.x + work.width / 2 - wide / 2,
      y: work.y + work.height / 2 - high / 2,
      width: wide,
      height: high,
    };
  }
  const isSmall = work && work.width > 0 && work.width < SMALL * width && work.height < SMALL * height;
  const box = isSmall ? work : { x: 0, y: 0, width, height };
  const margin = Math.max(box.width, box.height) * (isSmall ? ROOM.work : ROOM.sheet);
  return {
    x: box.x - margin,
    y: box.y - margin,
    width: box.width + 2 * margin,
    height: box.height + 2 * margin,
  };
}

/** What a picture shows, in its own coordinates. */
export const PictureShapes = ({ picture }: { picture: Picture }) => (
  <>
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
  </>
);

/** A job's true drawing at the size of its box. */
export function JobPicture({
  picture,
  title,
  within = null,
}: {
  picture: Picture;
  title: string;
  within?: Within | null;
}) {
  const seen = seenOf(picture, within);
  return (
    <svg
      role="img"
      aria-label={`Drawing of ${title}`}
      viewBox={`${seen.x} ${seen.y} ${seen.width} ${seen.height}`}
      preserveAspectRatio="xMidYMid meet"
    >
      <rect
        width={picture.width}
        height={picture.height}
        fill="var(--nf-sheet)"
        stroke="var(--nf-line)"
        vectorEffect="non-scaling-stroke"
      />
      <PictureShapes picture={picture} />
    </svg>
  );
}
