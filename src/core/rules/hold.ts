/** What falls or comes away: islands, loose pieces, overlaps that would be cut. */
import { bridgeIsland } from '../commands/bridges';
import { joinTogether, setHangs } from '../commands/hangs';
import { hangsTogether } from '../document/hangs';
import { sticks } from '../document/sticks';
import { regionBox } from '../geometry/path';
import { type Box, EMPTY_BOX, transformedBox, uniteBoxes } from '../geometry/point';
import { startSentence } from '../inspect/names';
import { more, type Observation, type Rule } from '../inspect/rule';
import { noteOf } from '../kinds/step';
import { tieStep } from '../kinds/steps/tie';
import { LIMITS } from '../limits';
import type { BridgedIsland } from '../prepare/bridges/notes';
import { type Piece, pieceKeys } from '../prepare/pieces';
import { type AnyMend, type PartSubject, partRule } from './rule';

/** Pieces that would come away and were not left so on purpose; none where overlaps are left or the stock sticks. */
const away = (about: PartSubject): readonly Piece[] => about.memory.of(about, 'away', () => findAway(about));

function findAway({ part, ready, isCut }: PartSubject): Piece[] {
  if (!isCut || ready.overlaps || sticks(part)) return [];
  const onPurpose = new Set(noteOf(tieStep, ready)?.leftLoose);
  const keys = onPurpose.size > 0 ? pieceKeys(ready.pieces, ready.sources) : [];
  const hangs = hangsTogether(part) === 'yes';
  return ready.pieces.filter(
    (piece, i) => piece.kind !== 'main' && (hangs || piece.kind !== 'loose') && !onPurpose.has(keys[i] as string),
  );
}

const sameBox = (a: Box, b: Box): boolean =>
  a.minX === b.minX && a.minY === b.minY && a.maxX === b.maxX && a.maxY === b.maxY;

/** What bridging knows of a piece that is an island. */
const islandOf = ({ ready }: PartSubject, piece: Piece): BridgedIsland | undefined =>
  ready.bridged?.islands.find((i) => sameBox(i.outline.box, piece.box));

/** The first of them with their names. */
const named = (about: PartSubject): readonly { readonly piece: Piece; readonly name: string }[] =>
  about.memory.of(about, 'away, named', () =>
    away(about)
      .slice(0, LIMITS.piecesNamed)
      .map((piece) => ({ piece, name: about.names.piece(piece) })),
  );

/** Something found about pieces of one kind, those that are named one by one. */
const ofPieces = (
  about: PartSubject,
  find: (piece: Piece, name: string) => Pick<Observation, 'sentence' | 'mend'> | null,
): Observation[] =>
  named(about).flatMap(({ piece, name }) => {
    const found = find(piece, name);
    return found ? [{ ...found, box: piece.box, detail: name }] : [];
  });

/** Letters of which less than this is left, in per cent, are hard to read. */
const HARD_TO_READ = 55;

/** The bounds of a letter as its face draws it, where it stands. */
function boxOfLetter({ frames }: PartSubject['ready'], label: number): Box {
  const frame = frames[label];
  return frame?.glyphs ? transformedBox(regionBox(frame.glyphs.outlines()), frame.matrix) : EMPTY_BOX;
}

/** Codes of findings by which a part does not come off as one piece. */
export const COMES_AWAY: ReadonlySet<string> = new Set([
  'overlaps',
  'unbridged',
  'island',
  'in-pieces',
  'loose',
  'more-pieces',
]);

/** What is found about pieces that come away. */
export const HOLD_RULES: readonly Rule<PartSubject, AnyMend>[] = [
  partRule({
    code: 'overlaps',
    severity: 'fault',
    station: 'close',
    many: (count) => `Letters of ${count} parts overlap and are not welded: every overlap would be cut.`,
    find: ({ part, ready, isCut, title }) =>
      isCut && ready.overlaps && !sticks(part)
        ? [
            {
              sentence: `Letters of ${title} overlap and are not welded: every overlap would be cut.`,
              detail: part.id,
              box: ready.box,
            },
          ]
        : [],
  }),
  partRule({
    code: 'unbridged',
    severity: 'fault',
    station: 'hold',
    many: (count) => `${count} islands will drop out: there is no room for their bridges.`,
    find: (about) =>
      ofPieces(about, (piece, called) => {
        const trouble = piece.kind === 'island' ? islandOf(about, piece)?.trouble : null;
        if (!trouble) return null;
        const name = startSentence(called);
        const least = about.length(about.ready.bridged?.leastMm ?? 0);
        return {
          sentence:
            trouble === 'too small'
              ? `${name} will drop out: it is too small for a bridge, which is ${least} wide at least.`
              : `${name} will drop out: no straight bridge at least ${least} wide reaches firm stock from it.`,
        };
      }),
  }),
  partRule<{ letter: string; island: number }>({
    code: 'island',
    severity: 'fault',
    station: 'hold',
    many: (count) => `${count} islands will drop out.`,
    mend: {
      words: 'Bridge it',
      all: 'Bridge them',
      apply: (job, partId, key, seen) => bridgeIsland(job, partId, key, seen.bridgesOf(partId)),
    },
    find: (about) =>
      ofPieces(about, (piece, name) => {
        if (piece.kind !== 'island') return null;
        const island = islandOf(about, piece);
        if (island?.trouble) return null;
        return {
          sentence: `${startSentence(name)} will drop out.`,
          mend: island ? { letter: island.letter, island: island.rank } : null,
        };
      }) as Observation<{ letter: string; island: number }>[],
  }),
  partRule({
    code: 'in-pieces',
    severity: 'caution',
    station: 'hold',
    many: (count) => `${count} parts come off in pieces. Are they to hang together?`,
    mend: { words: 'Yes', all: 'Yes, all of them', apply: (job, partId) => setHangs(job, partId, 'yes') },
    /**
     * Asked once: plain words come off in as many pieces as they have letters, and that may be meant. A drawing of several outlines is
     * several things.
     */
    find({ part, ready, isCut, title }) {
      if (!part.members.some(({ kind }) => kind === 'lettering' || kind === 'trace')) return [];
      if (!isCut || ready.overlaps || sticks(part) || hangsTogether(part) !== null) return [];
      const loose = ready.pieces.filter((piece) => piece.kind === 'loose').length;
      if (loose === 0) return [];
      const sentence = `${title} comes off in ${loose + 1} pieces. Is it to hang together?`;
      return [{ sentence, detail: part.id, box: ready.box, mend: {} }];
    },
  }),
  partRule({
    code: 'loose',
    severity: 'fault',
    station: 'hold',
    many: (count) => `${count} pieces are not attached.`,
    mend: {
      words: 'Join it',
      all: 'Join them',
      apply: (job, partId, _args, seen) => joinTogether(job, partId, seen.bridgesOf(partId).measure),
    },
    find: (about) =>
      ofPieces(about, (piece, name) =>
        piece.kind === 'island' ? null : { sentence: `${startSentence(name)} is not attached.`, mend: {} },
      ),
  }),
  partRule({
    code: 'more-pieces',
    severity: 'fault',
    station: 'hold',
    find(about) {
      const others = away(about).slice(LIMITS.piecesNamed);
      if (others.length === 0) return [];
      const box = others.reduce<Box>((all, piece) => uniteBoxes(all, piece.box), EMPTY_BOX);
      const sentence = `${more(others.length, 'piece')} of ${about.title} would come away.`;
      return [{ sentence, box, detail: about.part.id }];
    },
  }),
  partRule({
    code: 'hard-to-read',
    severity: 'caution',
    station: 'hold',
    many: (count) => `${count} letters are hard to read.`,
    find({ part, ready, names, title }) {
      const found = ready.readability.filter(({ figure }) => figure < HARD_TO_READ).sort((a, b) => a.figure - b.figure);
      const named = found.slice(0, LIMITS.piecesNamed).map(({ label, figure }) => ({
        sentence: `${startSentence(names.source(label))} is hard to read: ${Math.round(figure)} % is left of what tells it from other letters.`,
        detail: ready.frames[label]?.key ?? part.id,
        box: boxOfLetter(ready, label),
      }));
      const count = found.length - named.length;
      if (count === 0) return named;
      return [...named, { sentence: `${more(count, 'letter')} in ${title} hard to read.`, detail: part.id }];
    },
  }),
];
