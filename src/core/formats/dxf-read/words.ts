/** TEXT and MTEXT as lines of words with a place each. */
import { compose, rotation, scaling, translation } from '../../geometry/point';
import type { ReadText } from '../read-drawing';
import { type Entity, plainWords } from './entity';
import { after, fromAbove, objectSpace, type Space, UP } from './space';

/** A line of words before it is known which group it belongs to. */
export type Words = Omit<ReadText, 'group'>;

/** Signs that DXF writes with percent signs. */
const PERCENT: Readonly<Record<string, string>> = { d: '°', p: '±', c: '⌀', u: '', o: '', k: '', '%': '%' };

const plain = (text: string): string =>
  plainWords(text)
    .replace(/%%(\d{3})/g, (_, code: string) => String.fromCharCode(Number(code)))
    .replace(/%%(.)/gi, (all, sign: string) => PERCENT[sign.toLowerCase()] ?? all);

/** The words of MTEXT without their formatting, a line each. */
function mtextLines(text: string): string[] {
  return plainWords(text)
    .replace(/\\\\/g, '\u0000')
    .replace(/\\P/g, '\n')
    .replace(/\\~/g, ' ')
    .replace(/\\S([^;^/#]*)[\^/#]([^;]*);/g, '$1/$2')
    .replace(/\\[ACcFfHhQTWpL][^;\\]*;/g, '')
    .replace(/\\[LlOoKk]/g, '')
    .replace(/[{}]/g, '')
    .replaceAll('\u0000', '\\')
    .split('\n')
    .map(plain);
}

const LEFT_CENTRE_RIGHT = ['left', 'centre', 'right'] as const;
/** Distance of baselines in text heights, where nothing else is said. */
const LINE_PITCH = 5 / 3;

/** The lines of words of a TEXT or MTEXT entity, seen from above. */
export function wordsOf(e: Entity, space: Space): Words[] {
  const capital = e.number(40, 1);
  const base = { capitalMm: capital, face: '', bold: false, italic: false };
  if (e.type === 'MTEXT') {
    let text = '';
    for (let i = 0; i < e.size; i++) if (e.codeAt(i) === 3 || e.codeAt(i) === 1) text += e.textAt(i);
    const attachment = e.number(71, 1) - 1;
    const way = e.vector(11, [0, 0, 0]);
    const turn = e.has(11) ? (Math.atan2(way[1], way[0]) * 180) / Math.PI : e.number(50, 0);
    const place = e.vector(10, [0, 0, 0]);
    const m = compose(compose(rotation(turn), translation(place[0], place[1])), fromAbove(space, place[2]));
    const lines = mtextLines(text);
    const pitch = LINE_PITCH * capital * e.number(44, 1);
    const tall = capital + pitch * (lines.length - 1);
    const top = [0, tall / 2, tall][Math.floor(attachment / 3)] ?? 0;
    return lines.flatMap((line, i) =>
      line.trim() === ''
        ? []
        : [
            {
              ...base,
              text: line.trim(),
              align: LEFT_CENTRE_RIGHT[attachment % 3] ?? 'left',
              matrix: compose(translation(0, top - capital - pitch * i), m),
            },
          ],
    );
  }
  const text = plain(e.raw(1)).trim();
  if (text === '') return [];
  const across = e.number(72, 0);
  const up = e.type === 'ATTRIB' ? e.number(74, 0) : e.number(73, 0);
  const isMiddle = across === 4;
  const moved = (across !== 0 || up !== 0) && across !== 3 && across !== 5 && e.has(11);
  const place = e.vector(moved ? 11 : 10, [0, 0, 0]);
  const drop = isMiddle || up === 2 ? capital / 2 : up === 3 ? capital : 0;
  const flags = e.number(71, 0);
  const mirror = scaling(flags & 2 ? -1 : 1, flags & 4 ? -1 : 1);
  const own = compose(compose(translation(0, -drop), mirror), rotation(e.number(50, 0)));
  const plane = fromAbove(after(objectSpace(e.vector(210, UP)), space), place[2]);
  return [
    {
      ...base,
      text,
      align: isMiddle ? 'centre' : (LEFT_CENTRE_RIGHT[across] ?? 'left'),
      matrix: compose(compose(own, translation(place[0], place[1])), plane),
    },
  ];
}
