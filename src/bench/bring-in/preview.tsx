/** The picture of a drawing before it is brought in, on which two points can be pressed to measure between them. */
import { type PointerEvent, useMemo } from 'react';
import { pictureMatrix } from '@/core/commands/pictures';
import type { ReadText } from '@/core/formats/read-drawing';
import {
  type Box,
  boxHeight,
  boxWidth,
  isEmptyBox,
  type Point,
  transformedBox,
  uniteBoxes,
} from '@/core/geometry/point';
import { useObjectUrl } from '@/ui/object-url';
import type { FoundInDrawing, Looked } from '@/worker/reading';
import styles from './bring-in.module.css';

/** Height of a capital and width of a letter as shares of the size of the typeface that words are shown in. */
const CAPITAL = 0.72;
const LETTER = 0.6;

/** About where a line of words lies, before it is set in a typeface. */
function roughly({ text, matrix, capitalMm, align }: ReadText): Box {
  const width = ([...text].length * capitalMm * LETTER) / CAPITAL;
  const minX = { left: 0, centre: -width / 2, right: -width }[align];
  return transformedBox({ minX, maxX: minX + width, minY: -0.3 * capitalMm, maxY: capitalMm }, matrix);
}

/** What is drawn and written in a file, as large as there is room for. */
export function Preview({
  preview,
  marks,
  onMark,
}: {
  preview: Looked;
  marks: readonly Point[];
  onMark: (p: Point) => void;
}) {
  const { texts } = preview;
  const box = useMemo(() => texts.map(roughly).reduce(uniteBoxes, preview.box), [texts, preview.box]);
  if (isEmptyBox(box)) return null;
  const size = Math.max(boxWidth(box), boxHeight(box), 1e-6);
  const pad = size * 0.04;
  const press = (event: PointerEvent<SVGSVGElement>) => {
    const m = event.currentTarget.getScreenCTM()?.inverse();
    if (!m) return;
    onMark({ x: m.a * event.clientX + m.e, y: -(m.d * event.clientY + m.f) });
  };
  return (
    <svg
      className={styles.preview}
      viewBox={`${box.minX - pad} ${-box.maxY - pad} ${boxWidth(box) + 2 * pad} ${boxHeight(box) + 2 * pad}`}
      role="img"
      aria-label="The drawing; press two points to measure between them"
      onPointerDown={press}
    >
      <g transform="scale(1 -1)">
        {preview.pictures.map((picture, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: pictures have no name of their own
          <PictureIn key={i} picture={picture} />
        ))}
        {preview.groups.map((group, i) => (
          <path
            // biome-ignore lint/suspicious/noArrayIndexKey: groups have no name of their own
            key={i}
            d={group.d}
            className={styles.line}
            stroke={group.colour}
            fill={group.filled ? group.colour : 'none'}
            fillOpacity={0.25}
          />
        ))}
        {texts.map((text, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: lines of words have no name of their own
          <Words key={i} words={text} colour={preview.groups[text.group]?.colour ?? 'currentColor'} />
        ))}
        {marks.map((p) => (
          <circle key={`${p.x} ${p.y}`} className={styles.mark} cx={p.x} cy={p.y} r={size / 90} />
        ))}
        {marks.length === 2 && <path className={styles.mark} d={`M${marks.map((p) => `${p.x} ${p.y}`).join('L')}`} />}
      </g>
    </svg>
  );
}

const ANCHOR = { left: 'start', centre: 'middle', right: 'end' } as const;

/** A line of words where it stands in the file, as large as there; in a typeface of the page, for its own is not chosen yet. */
const Words = ({ words: { text, matrix: m, capitalMm, align }, colour }: { words: ReadText; colour: string }) => (
  <text
    className={styles.words}
    transform={`matrix(${m.a} ${m.b} ${m.c} ${m.d} ${m.e} ${m.f}) scale(1 -1)`}
    fontSize={capitalMm / CAPITAL}
    textAnchor={ANCHOR[align]}
    fill={colour}
  >
    {text}
  </text>
);

/** A picture of the drawing where it lies in it. */
function PictureIn({ picture }: { picture: FoundInDrawing }) {
  const { pixels, columns, rows, scale, placement } = picture;
  const url = useObjectUrl(useMemo(() => new Blob([new Uint8Array(pixels)], { type: 'image/png' }), [pixels]));
  const { a, b, c, d, e, f } = pictureMatrix({ scale, placement });
  return url ? (
    <image
      href={url}
      width={columns}
      height={rows}
      opacity={0.7}
      transform={`matrix(${a} ${b} ${c} ${d} ${e} ${f}) matrix(1 0 0 -1 ${-columns / 2} ${rows / 2})`}
    />
  ) : null;
}
