/** One line of lettering: shaped, its letters adjusted one by one, closed up. In font units from its own pen start. */

import { regionBox } from '../geometry/path';
import {
  type Box,
  boxCentre,
  compose,
  EMPTY_BOX,
  IDENTITY,
  isEmptyBox,
  rotation,
  scaling,
  translation,
  uniteBoxes,
} from '../geometry/point';
import { type Memory, NO_MEMORY, type Stage } from '../memo';
import type { LetterChange } from '../schema/lettering';
import { closeLetters } from './close-letters';
import type { FeatureUse, Typeface } from './face';
import { joinNeighbours } from './joining/join-neighbours';
import { featuresWithin, visualRuns } from './runs';
import {
  type LineCloseUp,
  letterOutlines,
  NUMBERS_PER_LETTER,
  type SetLetter,
  type SetLine,
  shiftBox,
} from './set-letter';

/** How one line is set: spacing, size against the others, closing up, changes to letters. */
export type TextLineSettings = {
  /** Extra space between letters in font units; ligatures are off when it is not 0. */
  readonly spacing: number;
  /** Features of the typeface that are asked for; their ranges count from the start of the line. */
  readonly features: readonly FeatureUse[];
  /** From font units of its face to the lettering's. */
  readonly scale: number;
  /** Overlap wanted between neighbours, over spaces too or not, and the height of capitals; null for no closing up. */
  readonly closeUp: LineCloseUp | null;
  /** Changes to letters of this line; `at` counts from the start of the line. */
  readonly changes: readonly LetterChange[];
};

const weighLine = (line: SetLine): number => NUMBERS_PER_LETTER * line.letters.length;

type LineInput = { readonly text: string; readonly face: Typeface; readonly settings: TextLineSettings };

/** A line as the typeface has it, with its spacing. */
const SHAPED: Stage<LineInput, SetLine> = {
  name: 'shaped line',
  key: ({ text, face, settings }, idOf) =>
    `${idOf(face)}|${settings.spacing}|${JSON.stringify(settings.features)}|${text}`,
  run: ({ text, face, settings }) => shapeLine(text, face, settings),
  weigh: weighLine,
};

/** A line with its letters sized, turned, nudged and closed up. */
const ARRANGED: Stage<LineInput, SetLine> = {
  name: 'arranged line',
  key: ({ text, face, settings }, idOf) => JSON.stringify([idOf(face), settings, text]),
  run: (input, memory) => arrange(memory.get(SHAPED, input), input, memory),
  weigh: weighLine,
};

const UNSEEN = /[\p{Cc}\ufeff]/gu;
/** Characters that draw nothing by themselves and are not missed when a face lacks them. */
const NOT_MISSED = /^[\s\p{Cc}\p{Default_Ignorable_Code_Point}]*$/u;

/** Set one line. Shaping and closing up are what take time, so lines that did not change are remembered. */
export function setLine(text: string, face: Typeface, settings: TextLineSettings, memory: Memory = NO_MEMORY): SetLine {
  const isPlain = settings.scale === 1 && !settings.closeUp && settings.changes.length === 0;
  return memory.get(isPlain ? SHAPED : ARRANGED, { text, face, settings });
}

function shapeLine(text: string, face: Typeface, { spacing, features }: TextLineSettings): SetLine {
  const missing = new Set<string>();
  const broken = new Set<string>();
  const clean = text.replace(/\t/g, ' ').replace(UNSEEN, '\u200b');
  const letters: SetLetter[] = [];
  let pen = 0;
  let box = EMPTY_BOX;
  const runs = visualRuns(clean);
  runs.forEach((run, r) => {
    const shaped = face.shape(clean.slice(run.start, run.end), run.direction, {
      ligatures: spacing === 0,
      features: featuresWithin(features, run),
    });
    const starts = [...new Set(shaped.map((g) => g.cluster))].sort((a, b) => a - b);
    const endOf = (cluster: number) => starts.find((s) => s > cluster) ?? run.end - run.start;
    for (let i = 0; i < shaped.length; ) {
      const cluster = (shaped[i] as { cluster: number }).cluster;
      const start = run.start + cluster;
      const end = run.start + endOf(cluster);
      const glyphs: { glyph: number; x: number; y: number }[] = [];
      const origin = pen;
      let lacks = false;
      let isBroken = false;
      let ink = EMPTY_BOX;
      for (; i < shaped.length && shaped[i]?.cluster === cluster; i++) {
        const g = shaped[i] as (typeof shaped)[number];
        if (g.glyph === 0) lacks = true;
        else {
          if (face.isBroken(g.glyph)) isBroken = true;
          const b = face.box(g.glyph);
          if (!isEmptyBox(b)) {
            const x = pen - origin + g.dx;
            glyphs.push({ glyph: g.glyph, x, y: g.dy });
            ink = uniteBoxes(ink, { minX: b.minX + x, maxX: b.maxX + x, minY: b.minY + g.dy, maxY: b.maxY + g.dy });
          }
        }
        pen += g.advance;
      }
      const chars = clean.slice(start, end);
      if (lacks && !NOT_MISSED.test(chars)) missing.add(chars);
      if (isBroken) broken.add(chars);
      const last = i >= shaped.length && r === runs.length - 1;
      const advance = pen - origin;
      if (!last) pen += spacing;
      if (glyphs.length > 0) {
        letters.push({
          letter: { text: chars, start, end, line: 0, glyphs, own: null, drawn: null, baselineDeg: 0, x: origin, y: 0 },
          box: shiftBox(ink, origin, 0),
          advance,
          moved: null,
        });
        box = uniteBoxes(box, shiftBox(ink, origin, 0));
      }
    }
  });
  return { letters, box, missing: [...missing], broken: [...broken], joints: [] };
}

const UNCHANGED: LetterChange = { at: -1, dx: 0, dy: 0, turn: 0, scale: 1, form: null };

/** Sizes, turns and nudges of letters, the size of the line, and closing up, in this order. */
function arrange(bare: SetLine, { text, face, settings: s }: LineInput, memory: Memory): SetLine {
  const changeOf = (letter: SetLetter['letter']) =>
    s.changes.find((c) => c.at >= letter.start && c.at < letter.end) ?? UNCHANGED;
  // Sizes first: what follows a larger letter moves on by what it has grown.
  let grown = 0;
  const sized = bare.letters.map(({ letter, box, advance: bareAdvance }, i): SetLetter => {
    const { scale, turn } = changeOf(letter);
    const x = (letter.x + grown) * s.scale;
    const next = bare.letters[i + 1];
    const advance = next ? next.letter.x - letter.x - s.spacing : box.maxX - letter.x;
    grown += (scale - 1) * advance;
    const size = scale * s.scale;
    const own = { advance: bareAdvance * size, moved: null };
    if (size === 1 && turn === 0) return { letter: { ...letter, x }, box: shiftBox(box, x - letter.x, 0), ...own };
    const middle = boxCentre(shiftBox(box, -letter.x, 0));
    const about = translation(-middle.x * size, -middle.y * size);
    const back = translation(middle.x * size, middle.y * size);
    const matrix = compose(scaling(size), turn === 0 ? IDENTITY : compose(compose(about, rotation(turn)), back));
    const changed = { ...letter, own: matrix, x };
    return { letter: changed, box: shiftBox(regionBox(letterOutlines(changed, face)), x, 0), ...own };
  });
  const { letters, joints } = s.closeUp
    ? (s.closeUp.joints === 'overlap' ? closeLetters : joinNeighbours)(sized, {
        text,
        face,
        closeUp: s.closeUp,
        memory,
      })
    : { letters: sized, joints: [] };
  const placedLetters = letters.map((set): SetLetter => {
    const { letter, box } = set;
    const { dx, dy } = changeOf(letter);
    const [mx, my] = [dx * face.capHeight * s.scale, dy * face.capHeight * s.scale];
    const moved = mx === 0 && my === 0 ? null : { x: mx, y: my };
    return { ...set, letter: { ...letter, x: letter.x + mx, y: my }, box: shiftBox(box, mx, my), moved };
  });
  return {
    letters: placedLetters,
    box: placedLetters.reduce<Box>((all, l) => uniteBoxes(all, l.box), EMPTY_BOX),
    missing: bare.missing,
    broken: bare.broken,
    joints,
  };
}
