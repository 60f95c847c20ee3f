/** Tie: what is loose is joined to its nearest neighbour by a strip, or as is said for it. */
import { z } from 'zod';
import { transformPath } from '../../geometry/path';
import { transformedBox } from '../../geometry/point';
import { LIMITS } from '../../limits';
import { type Piece, piecesOf } from '../../prepare/pieces';
import { type Tie, tiesFor } from '../../prepare/ties';
import { movedAndTied } from '../../prepare/unite';
import { about, ends, length, stepOn } from '../../schema/fields';
import { outlineStep, tenths } from '../step';

const tieShare = z.number().min(-LIMITS.tieShares).max(LIMITS.tieShares).nullable().default(null);

const tieAnswerSchema = z.strictObject({
  piece: about(z.string().max(200), 'Which piece: member, letter and, after a stroke, which piece of that letter.'),
  how: about(
    z.enum(['tie', 'move', 'grow', 'leave']).default('tie'),
    'Joined by a tie, moved until it touches, enlarged until it touches, or left as a piece of its own.',
  ),
  x: about(
    tieShare,
    'Middle of a tie placed by hand, from the middle of the piece, in shares of its size; null: where it is best.',
  ),
  y: about(tieShare, 'The same upwards.'),
  turn: about(z.number().min(-360).max(360).nullable().default(null), 'Direction of a tie set by hand, in degrees.'),
});

/** What the user says of one tie: none, or where and which way. */
export type TieAnswer = z.infer<typeof tieAnswerSchema>;

/** What tying did. */
export type TieNote = {
  readonly ties: readonly Tie[];
  /** The pieces there were before, with their keys. */
  readonly pieces: readonly Piece[];
  readonly keys: readonly string[];
  /** Keys of pieces left loose on purpose. */
  readonly leftLoose: readonly string[];
  /** Pieces that are too many to be tied; 0 when they were. */
  readonly tooMany: number;
};

/** Strips that attach loose pieces. */
export const tieStep = outlineStep({
  kind: 'tie',
  word: 'ties',
  isSingle: true,
  schema: z.strictObject({
    kind: z.literal('tie'),
    on: stepOn,
    width: about(length.default(3), 'Width of ties in mm.'),
    overlap: about(z.number().min(0.01).max(1000).default(1), 'How far ties run into the pieces they join, in mm.'),
    ends: about(ends, 'Whether their ends are straight or rounded.'),
    direction: about(z.enum(['any', 'upright', 'level']).default('any'), 'As is best, or only upright or level.'),
    answers: about(z.array(tieAnswerSchema).max(LIMITS.piecesTied).default([]), 'Pieces treated otherwise.'),
  }),
  suited: ({ capHeightMm, leastWidthMm }) => ({
    width: tenths(Math.max(leastWidthMm ?? 0, capHeightMm / 12)),
    overlap: tenths(capHeightMm / 25),
  }),
  lengths: { grows: [], stays: ['width', 'overlap'] },
  letters(step, { keyOf }) {
    step.answers = step.answers.flatMap((answer) => {
      const piece = keyOf(answer.piece);
      return piece === null ? [] : [{ ...answer, piece }];
    });
  },
  keepsLetters: false,
  run({ shape }, step, { engine, keep, sources }) {
    // What is cut away is not held by ties.
    if (keep !== 'inside') return {};
    const pieces = piecesOf(shape);
    const tied = tiesFor(shape, pieces, sources, step);
    const { ties, keys, untied, tooMany } = tied;
    const note: TieNote = { ties, pieces, keys, leftLoose: untied, tooMany };
    return { shape: movedAndTied(engine, shape, tied), note };
  },
  moved: (note: TieNote, { matrix }) => ({
    ...note,
    // Places that are set by hand keep the part's own coordinates: middle and direction of a tie, bounds of its piece.
    ties: note.ties.map((t) => ({ ...t, path: transformPath(t.path, matrix) })),
    // They lie in the shape before; of these only bounds are known.
    pieces: note.pieces.map((piece) => ({ ...piece, box: transformedBox(piece.box, matrix) })),
  }),
  rules: [
    {
      code: 'too-many-to-tie',
      severity: 'caution',
      station: 'hold',
      find: ({ note, part, partId, title }) =>
        note && note.tooMany > 0
          ? [
              {
                sentence: `${title} is in ${note.tooMany} pieces; up to ${LIMITS.piecesTied} are tied together.`,
                box: part.box,
                detail: partId,
              },
            ]
          : [],
    },
  ],
});
