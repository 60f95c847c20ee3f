/** The job document: what a job is, with limits and defaults. docs/job-format.md is written from this file. */
import { z } from 'zod';
import { LIMITS } from '../limits';

export const JOB_FORMAT = 2;

const about = <T extends z.ZodType>(schema: T, description: string): T => schema.describe(description);

const id = z
  .string()
  .regex(/^[A-Za-z0-9_-]{1,64}$/, 'must be 1 to 64 letters, digits, - or _')
  .describe('Name used for references inside the document; letters, digits, - and _.');
const name = z.string().max(LIMITS.nameCharacters);
const coordinate = z.number().min(-LIMITS.lengthMm).max(LIMITS.lengthMm);
const length = z.number().positive().max(LIMITS.lengthMm);
const share = z.number().min(-100).max(100).default(0);
const colour = z.string().regex(/^#[0-9a-fA-F]{6}$/, 'must be a colour such as #3730A3');

const sheetSchema = z.strictObject({
  width: about(z.number().min(LIMITS.sheetLeastMm).max(LIMITS.sheetMostMm), 'Width in mm.'),
  height: about(z.number().min(LIMITS.sheetLeastMm).max(LIMITS.sheetMostMm), 'Height in mm.'),
  material: about(name.default(''), 'What the stock is, in the user’s words.'),
  thickness: about(z.number().min(0).max(1000).nullable().default(null), 'Thickness in mm, or null when not given.'),
  leastWidth: about(
    z.number().min(0).max(1000).nullable().default(null),
    'The least width that is safe in this material, in mm; null: strength is not looked at.',
  ),
  kerf: about(
    z.number().min(0).max(100).nullable().default(null),
    'Width that the beam or tool takes away, in mm; null when not given.',
  ),
});

const turnAndMirror = {
  turn: about(z.number().min(-360_000).max(360_000).default(0), 'Turn about the origin in degrees, counter-clockwise.'),
  mirror: about(z.boolean().default(false), 'Mirrored left to right about the origin before turning.'),
};

const placementSchema = z.strictObject({
  x: about(coordinate, 'Place of the member’s origin in its part in mm, to the right of the part’s origin.'),
  y: about(coordinate, 'The same upwards.'),
  ...turnAndMirror,
});

const partPlacementSchema = z.strictObject({
  x: about(
    coordinate,
    'Place of the part’s origin on the sheet in mm, from the left edge; or in the part it goes along with.',
  ),
  y: about(coordinate, 'The same upwards from the bottom edge.'),
  ...turnAndMirror,
});

const role = z
  .enum(['join', 'punch', 'clip'])
  .default('join')
  .describe(
    'How the member combines with those before it: added, cut out of them, or keeping only what lies within it.',
  );

const member = { id, role, placement: placementSchema };

const closeUpSchema = z.strictObject({
  overlap: about(
    z.number().min(0.01).max(1000),
    'Strength every joint is to have, in mm: how deep neighbours overlap and how wide the neck between them is, at least.',
  ),
  words: about(z.boolean().default(false), 'Also over the spaces between words.'),
  lines: about(z.boolean().default(false), 'Also each line with those above it.'),
});

const letterChangeSchema = z.strictObject({
  at: about(z.int().min(0).max(LIMITS.letteringStoredCharacters), 'Index of the letter in the text, in UTF-16 units.'),
  dx: about(share, 'Moved to the right by this share of the capital height.'),
  dy: about(share, 'The same upwards.'),
  turn: about(z.number().min(-360_000).max(360_000).default(0), 'Turned about its middle, degrees counter-clockwise.'),
  scale: about(z.number().min(0.05).max(20).default(1), 'How many times as large as the rest; the rest moves on.'),
});

const letteringSchema = z.strictObject({
  ...member,
  kind: z.literal('lettering'),
  text: about(z.string().max(LIMITS.letteringStoredCharacters), 'The words; lines are parted by \\n.'),
  face: about(name.min(1), 'Family name of the typeface.'),
  weight: about(
    z.int().min(1).max(1000).nullable().default(null),
    'Weight wanted where the family has several (400 regular, 700 bold).',
  ),
  italic: about(z.boolean().default(false), 'Italic where the family has it.'),
  size: z
    .strictObject({
      by: about(
        z.enum(['capital', 'width']),
        '`capital`: height of a flat capital; `width`: of the widest line as drawn.',
      ),
      mm: about(length, 'That measure in mm.'),
    })
    .describe('Size; proportions are always kept.'),
  letterSpacing: about(
    z.number().min(-2).max(10).default(0),
    'Extra space between letters as a share of the capital height.',
  ),
  lineSpacing: about(
    z.number().min(0.1).max(10).default(1),
    'Distance of baselines as a multiple of the typeface’s own.',
  ),
  align: about(
    z.enum(['left', 'centre', 'right']).default('left'),
    'How lines align, by what is drawn; also which end of the first baseline is the origin.',
  ),
  evenLines: about(
    z.enum(['no', 'spacing', 'size', 'both']).default('no'),
    'Whether all lines are made as wide as the widest: by their letter spacing, their size, or half by each.',
  ),
  closeUp: about(closeUpSchema.nullable().default(null), 'Letters moved together until they overlap; null for not.'),
  insteadOf: about(
    name.nullable().default(null),
    'Typeface that a file asked for, where these words came from one; null when they did not.',
  ),
  letters: about(
    z.array(letterChangeSchema).max(LIMITS.letterChanges).default([]),
    'Letters that are moved, turned or sized by themselves.',
  ),
});

const rectangleSchema = z.strictObject({
  ...member,
  kind: z.literal('rectangle'),
  width: about(length, 'Width in mm; the origin is the centre.'),
  height: about(length, 'Height in mm.'),
  corner: about(
    z.number().min(0).max(LIMITS.lengthMm).default(0),
    'Radius of the corners in mm; at most half the shorter side is used.',
  ),
});

const ellipseSchema = z.strictObject({
  ...member,
  kind: z.literal('ellipse'),
  width: about(length, 'Width in mm; the origin is the centre.'),
  height: about(length, 'Height in mm.'),
});

const polygonSchema = z.strictObject({
  ...member,
  kind: z.literal('polygon'),
  width: about(
    length,
    'Diameter of the circle through its corners, in mm; the origin is its centre. One corner is on top.',
  ),
  sides: about(z.int().min(3).max(LIMITS.shapeCorners), 'Number of sides.'),
});

const starSchema = z.strictObject({
  ...member,
  kind: z.literal('star'),
  width: about(
    length,
    'Diameter of the circle through its points, in mm; the origin is its centre. One point is on top.',
  ),
  points: about(z.int().min(3).max(LIMITS.shapeCorners), 'Number of points.'),
  inner: about(
    z.number().min(0.02).max(0.98).default(0.45),
    'Circle through its inner corners, as a share of the outer.',
  ),
});

const heartSchema = z.strictObject({
  ...member,
  kind: z.literal('heart'),
  width: about(length, 'Width in mm; the origin is the middle of its bounds.'),
  height: about(length, 'Height in mm.'),
});

const barSchema = z.strictObject({
  ...member,
  kind: z.literal('bar'),
  width: about(length, 'Length in mm, its ends included; the origin is the centre.'),
  height: about(length, 'Thickness in mm.'),
  ends: about(z.enum(['square', 'round']).default('square'), 'Whether its ends are straight or half circles.'),
});

const spikeSchema = z.strictObject({
  ...member,
  kind: z.literal('spike'),
  width: about(length, 'Width in mm; the origin is the middle of its top edge.'),
  height: about(length, 'Length downwards in mm, the point included.'),
  point: about(length, 'Length of the point in mm; at most the whole length is used.'),
});

const copySchema = z.strictObject({
  ...member,
  kind: z.literal('copy'),
  of: id.describe('Id of the part whose shape is copied, live; the origin is the middle of that shape.'),
  scale: about(z.number().min(0.001).max(1000).default(1), 'How many times as large as what it copies.'),
  follows: about(
    z.boolean().default(false),
    'Whether its place counts from the middle of what it copies, as that lies in its own part, so that it stays on it.',
  ),
});

const assetId = z
  .string()
  .regex(/^[0-9a-f]{64}$/, 'must be the SHA-256 of what is kept, 64 hexadecimal digits')
  .describe('SHA-256 of what is kept beside the document.');

const gapAnswerSchema = z.strictObject({
  gap: about(z.string().max(120), 'Which gap: its two ends in the drawing.'),
  how: about(z.enum(['close', 'leave']), 'Whether these two ends are joined.'),
});

export const closeSchema = z.strictObject({
  gap: about(
    z.number().min(0).max(LIMITS.gapMostMm).default(0),
    'Gaps up to this are closed where it is sure which ends belong together, in mm; 0: none is.',
  ),
  look: about(z.number().min(0.01).max(LIMITS.gapMostMm).default(2), 'Gaps up to this are looked for, in mm.'),
  doubles: about(
    z.number().min(0).max(1).default(0.02),
    'Lines that run along each other closer than this are one, in mm; 0: all stay.',
  ),
  specks: about(
    z.number().min(0).max(LIMITS.gapMostMm).default(0.05),
    'Lines shorter than this that join nothing are left out, in mm.',
  ),
  refit: about(
    z.number().min(0.001).max(LIMITS.gapMostMm).nullable().default(null),
    'Runs of short lines become arcs and curves that stray from them no more than this, in mm; null: they stay.',
  ),
  answers: about(z.array(gapAnswerSchema).max(LIMITS.gapAnswers).default([]), 'Gaps that were answered one by one.'),
});

const artworkSchema = z.strictObject({
  ...member,
  kind: z.literal('artwork'),
  name: about(name.default(''), 'Name of the file it came from.'),
  drawing: about(assetId, 'The drawing as it was read, by its id; the origin is the middle of its bounds.'),
  original: about(assetId.nullable().default(null), 'The file itself, by its id.'),
  groups: about(
    z.array(z.int().min(0).max(LIMITS.drawnGroups)).max(LIMITS.drawnGroups).nullable().default(null),
    'Which groups of the drawing it has; null: all.',
  ),
  scale: about(z.number().min(1e-4).max(1e4).default(1), 'How many times as large as the file was read.'),
  close: closeSchema
    .default({ gap: 0, look: 2, doubles: 0.02, specks: 0.05, refit: null, answers: [] })
    .describe('How its loose lines are made into outlines.'),
});

const pathData = about(
  z.string().max(LIMITS.pathCharacters),
  'Paths as SVG path data in mm, y upwards; closed ones enclose areas, open ones are lines.',
);

const pathSchema = z.strictObject({
  ...member,
  kind: z.literal('path'),
  d: pathData,
  scale: about(z.number().min(1e-4).max(1e4).default(1), 'How many times as large as it was drawn.'),
});

const memberSchema = z.discriminatedUnion('kind', [
  letteringSchema,
  rectangleSchema,
  ellipseSchema,
  polygonSchema,
  starSchema,
  heartSchema,
  barSchema,
  spikeSchema,
  copySchema,
  artworkSchema,
  pathSchema,
]);

const weldStepSchema = z.strictObject({
  kind: z.literal('weld'),
  on: about(z.boolean().default(true), 'Off: overlapping letters stay outlines of their own.'),
});

const plateMargin = z.number().min(-1000).max(LIMITS.lengthMm).default(20);
const stepOn = about(z.boolean().default(true), 'Off: the step is kept but does nothing.');
const corners = z.enum(['round', 'mitre', 'square']).default('round').describe('Shape of the corners that grow.');

const thickenStepSchema = z.strictObject({
  kind: z.literal('thicken'),
  on: stepOn,
  by: about(
    z.number().min(-LIMITS.offsetMostMm).max(LIMITS.offsetMostMm).default(0.2),
    'How far every outline moves outwards in mm; negative for inwards.',
  ),
  corners,
  holesOpen: about(
    z.number().min(0).max(LIMITS.offsetMostMm).nullable().default(null),
    'Holes are kept at least this wide in mm; a hole that would get narrower grows less. Null: they may close.',
  ),
});

const barStepSchema = z.strictObject({
  kind: z.literal('bar'),
  on: stepOn,
  at: about(
    z.enum(['under', 'through']).default('under'),
    '`under`: the letters stand in it; `through`: it runs through their middle.',
  ),
  height: about(length.default(5), 'Thickness in mm.'),
  overlap: about(z.number().min(0).max(1000).default(1), 'How deep letters on the baseline stand in it, in mm.'),
  beyond: about(z.number().min(-1000).max(1000).default(0), 'How far it reaches beyond the words at each end, in mm.'),
  ends: about(z.enum(['square', 'round']).default('square'), 'Whether its ends are straight or half circles.'),
});

const tieAnswerSchema = z.strictObject({
  piece: about(z.string().max(200), 'Which piece: member, letter and, after a stroke, which piece of that letter.'),
  how: about(
    z.enum(['tie', 'move', 'grow', 'leave']).default('tie'),
    'Joined by a tie, moved until it touches, enlarged until it touches, or left as a piece of its own.',
  ),
  x: about(
    z.number().nullable().default(null),
    'Middle of a tie placed by hand, from the middle of the piece, in shares of its size; null: where it is best.',
  ),
  y: about(z.number().nullable().default(null), 'The same upwards.'),
  turn: about(z.number().min(-360).max(360).nullable().default(null), 'Direction of a tie set by hand, in degrees.'),
});

const tieStepSchema = z.strictObject({
  kind: z.literal('tie'),
  on: stepOn,
  width: about(length.default(3), 'Width of ties in mm.'),
  overlap: about(z.number().min(0.01).max(1000).default(1), 'How far ties run into the pieces they join, in mm.'),
  ends: about(z.enum(['square', 'round']).default('square'), 'Whether their ends are straight or rounded.'),
  direction: about(z.enum(['any', 'upright', 'level']).default('any'), 'As is best, or only upright or level.'),
  answers: about(z.array(tieAnswerSchema).max(LIMITS.piecesTied).default([]), 'Pieces treated otherwise.'),
});

const borderStepSchema = z.strictObject({
  kind: z.literal('border'),
  on: stepOn,
  distance: about(
    z.number().min(0).max(LIMITS.offsetMostMm).default(6),
    'Distance of the border from the shape in mm.',
  ),
  corners,
  envelope: about(
    z.boolean().default(false),
    'Off: it follows the letters; on: it spans the hollows between them, like a skin pulled over them.',
  ),
  bridge: about(
    z.number().min(0).max(LIMITS.offsetMostMm).default(0),
    'Gaps in the border narrower than this are bridged, in mm.',
  ),
  smooth: about(z.number().min(0).max(LIMITS.offsetMostMm).default(0), 'Radius its corners are rounded to, in mm.'),
  holesFrom: about(
    z.number().min(0).max(LIMITS.offsetMostMm).nullable().default(null),
    'Holes at least this wide stay, in mm; null: none does.',
  ),
});

const plateStepSchema = z.strictObject({
  kind: z.literal('plate'),
  on: stepOn,
  shape: about(z.enum(['rectangle', 'ellipse']).default('rectangle'), 'Shape of the plate.'),
  across: about(plateMargin, 'Stock left and right of the words, in mm; an ellipse goes round the corners of that.'),
  upright: about(plateMargin, 'The same above and below them.'),
  corner: about(z.number().min(0).max(LIMITS.lengthMm).default(0), 'Radius of the corners in mm.'),
  holes: about(
    z.enum(['none', 'corners', 'top', 'sides']).default('none'),
    'Holes for screws or hanging: none, near the four corners, near the two upper ones, or half way up both sides.',
  ),
  holeWidth: about(length.default(5), 'Diameter of the holes in mm.'),
  inset: about(length.default(10), 'From the edges of the plate to the middle of the holes, in mm.'),
});

/** Where something stands on a letter, whatever becomes of the words. */
const letterKey = about(
  z.string().max(200),
  'Which letter: id of its member and index of its first character in the text, parted by a colon.',
);
const bridgeCount = z.int().min(0).max(LIMITS.bridgesOfIsland);

const islandSettingSchema = z.strictObject({
  letter: letterKey,
  island: about(z.int().min(0).max(LIMITS.islands), 'Which island of that letter, from the top, then from the left.'),
  how: about(
    z.enum(['auto', 'hand', 'leave']).default('auto'),
    '`auto`: placed anew each time; `hand`: only the bridges placed by hand; `leave`: no bridges.',
  ),
  count: about(bridgeCount.nullable().default(null), 'How many bridges; 0 as is best; null: as the step says.'),
});

const placedBridgeSchema = z.strictObject({
  letter: letterKey,
  island: about(
    z.int().min(0).max(LIMITS.islands).nullable().default(null),
    'Which island of that letter it holds; null: it holds none and crosses the gap nearest to it.',
  ),
  x: about(
    z.number().min(-LIMITS.bridgeCapitals).max(LIMITS.bridgeCapitals),
    'Where it starts, in capital heights from the letter’s origin.',
  ),
  y: about(z.number().min(-LIMITS.bridgeCapitals).max(LIMITS.bridgeCapitals), 'The same upwards from the baseline.'),
  turn: about(
    z.number().min(-360).max(360).nullable().default(null),
    'Its direction in the letter in degrees; null: square to the gap, or as the step says.',
  ),
  width: about(length.nullable().default(null), 'Its width in mm; null: as the step says.'),
});

const bridgeStepSchema = z.strictObject({
  kind: z.literal('bridge'),
  on: stepOn,
  width: about(length.default(3), 'Width of bridges in mm; where they are waisted, of the waist.'),
  direction: about(
    z.enum(['any', 'upright', 'level', 'stroke']).default('any'),
    'Which way bridges run: as is best, upright or level in the letter, or square across the stroke.',
  ),
  count: about(bridgeCount.default(0), 'Bridges of each island; 0: one, or two where it is large or heavy.'),
  sides: about(z.enum(['straight', 'waisted']).default('straight'), 'Whether the sides are straight or swing in.'),
  joints: about(z.enum(['square', 'filleted']).default('square'), 'Whether straight sides meet the edges in a fillet.'),
  slanted: about(z.boolean().default(true), 'Upright bridges lean as the typeface does.'),
  alike: about(z.boolean().default(true), 'The same letter has the same bridges everywhere.'),
  level: about(z.boolean().default(false), 'Bridges of neighbours lie at the same height.'),
  islands: about(z.array(islandSettingSchema).max(LIMITS.islands).default([]), 'Islands treated otherwise.'),
  placed: about(z.array(placedBridgeSchema).max(LIMITS.bridgesPlaced).default([]), 'Bridges placed by hand.'),
});

const nodesStepSchema = z.strictObject({
  kind: z.literal('nodes'),
  on: stepOn,
  d: pathData,
  unit: about(length, 'What the first member measured when this was drawn, in mm: its capitals, or its height.'),
  over: about(
    z.strictObject({ segments: z.int().min(0), area: z.number(), length: z.number().min(0) }),
    'What it stands in place of, as it was then: segments, area and length in that measure.',
  ),
});

const lineCorrectionSchema = z.strictObject({
  letter: about(letterKey, 'Which letter it was made on; the whole part where it is no letter.'),
  alike: about(
    z.string().max(400).nullable().default(null),
    'What letters look like that it stands for everywhere in the part; null: only this one.',
  ),
  d: about(pathData, 'The lines in its place, in capital heights from the letter’s origin.'),
});

const centerlineStepSchema = z.strictObject({
  kind: z.literal('centerline'),
  on: stepOn,
  detail: about(
    z.number().min(0.05).max(10).default(0.45),
    'How far a branch must reach beyond the stroke it comes from to be a line, in halves of that stroke.',
  ),
  smooth: about(
    z.number().min(0.0001).max(100).nullable().default(null),
    'How far lines may stray from the middle to be smooth, in mm; null: a hundredth of the stroke.',
  ),
  ends: about(
    z.enum(['tip', 'short']).default('tip'),
    'Lines go to the end of the stroke, or stop short of it by half the stroke, where a round pen fills the rest.',
  ),
  loops: about(
    z.enum(['kept', 'filled']).default('kept'),
    'Loops whose inside is narrower than half the stroke stay loops, or are filled and become part of the stroke.',
  ),
  retraced: about(
    z.enum(['once', 'twice']).default('once'),
    'Stretches that two strokes share are drawn once, or gone over twice where the pen need not be lifted then.',
  ),
  joined: about(z.boolean().default(true), 'Lines run on from letter to letter where letters touch.'),
  dots: about(
    z.enum(['circle', 'point']).default('circle'),
    'What a dot becomes: a circle half its width, or a point.',
  ),
  corrections: about(
    z.array(lineCorrectionSchema).max(LIMITS.lineCorrections).default([]),
    'Letters whose lines were drawn by hand.',
  ),
});

const dotMoveSchema = z.strictObject({
  letter: about(
    letterKey.nullable().default(null),
    'Which letter its place counts from, in capital heights of that letter; null: from the first member’s origin.',
  ),
  x: about(coordinate, 'Where the dot would be, from that origin, in capital heights, or heights of the first member.'),
  y: about(coordinate, 'The same upwards.'),
  dx: about(coordinate.nullable().default(null), 'How far it was moved, in the same measure; null: it is left out.'),
  dy: about(coordinate.nullable().default(null), 'The same upwards.'),
});

const dotsStepSchema = z.strictObject({
  kind: z.literal('dots'),
  on: stepOn,
  along: about(
    z.enum(['centerline', 'outline']).default('outline'),
    'Along the middle of the strokes, or along outlines and lines.',
  ),
  diameter: about(z.number().min(0.01).max(1000).default(2), 'Diameter of each dot in mm.'),
  spacing: about(z.number().min(0.01).max(1000).default(3), 'From middle to middle in mm.'),
  even: about(
    z.boolean().default(true),
    'Spacing is stretched or squeezed a little, so that corners and ends are met evenly; else it is kept and the last gap is what is left.',
  ),
  apart: about(z.boolean().default(true), 'Dots that would touch others are left out; else they stay and are found.'),
  as: about(z.enum(['circle', 'point']).default('circle'), 'What a dot is in files: a circle, or its middle.'),
  changes: about(z.array(dotMoveSchema).max(LIMITS.dotChanges).default([]), 'Dots moved or left out by hand.'),
});

const toolShape = {
  shape: about(
    z.enum(['line', 'flat', 'round', 'cone']).default('line'),
    '`line`: a pen or beam as wide as its tip; `flat`: a tool with a flat end; `round`: one with a round end; `cone`: one that widens upwards.',
  ),
  tip: about(z.number().min(0.01).max(1000).default(1), 'Width in mm; of a cone, of its tip.'),
  angle: about(z.number().min(1).max(170).default(60), 'Angle of a cone between its sides, in degrees.'),
  depth: about(
    z.number().min(0.001).max(1000).default(0.5),
    'How deep it goes, in mm; it tells how wide a round end or a cone works.',
  ),
};

const fillToolSchema = z.strictObject(toolShape);

const listedToolSchema = z.strictObject({
  id,
  ...toolShape,
  feed: about(z.number().min(1).max(1_000_000).default(1000), 'How fast it goes along lines, in mm a minute.'),
});

const hatchStepSchema = z.strictObject({
  kind: z.literal('hatch'),
  on: stepOn,
  style: about(
    z.enum(['parallel', 'crossed', 'rings']).default('parallel'),
    'Lines side by side, the same crossed by a second set, or rings that follow the outline inwards.',
  ),
  joined: about(
    z.boolean().default(true),
    'The ends of neighbouring lines are joined along the edge, there and back, so that the tool stays down.',
  ),
  tool: fillToolSchema.prefault({}).describe('What fills.'),
  overlap: about(
    z.number().min(-20).max(0.95).default(0.3),
    'Share of the width that neighbouring lines overlap; below 0 there is room between them.',
  ),
  angle: about(
    z.number().min(-360).max(360).default(45),
    'Direction of the lines in degrees, counter-clockwise from level.',
  ),
  outline: about(
    z.enum(['none', 'first', 'last']).default('last'),
    'A pass along the edge, half the width inside it, before or after the lines; rings end with it anyway.',
  ),
  least: about(z.number().min(0).max(1000).default(0), 'Lines shorter than this are left out, in mm.'),
  rest: about(z.boolean().default(false), 'Places the lines miss get the few strokes they need.'),
  mostMissed: about(
    z.number().min(0).max(1).default(0.03),
    'Share of the area that a tool may leave because it does not fit; more is a finding, and no such tool is proposed.',
  ),
});

const stepSchema = z.discriminatedUnion('kind', [
  weldStepSchema,
  thickenStepSchema,
  barStepSchema,
  tieStepSchema,
  borderStepSchema,
  plateStepSchema,
  nodesStepSchema,
  bridgeStepSchema,
  centerlineStepSchema,
  dotsStepSchema,
  hatchStepSchema,
]);

const workSchema = z.strictObject({
  what: about(
    z.enum(['outline', 'fill', 'hatch', 'centerline', 'dots']),
    'What of the part is worked: its outlines and lines, the area inside them as a whole, lines that fill it, the middle of its strokes, or dots.',
  ),
  operation: about(id, 'Id of the operation that does it.'),
});

export const partSchema = z.strictObject({
  id,
  name: about(name.default(''), 'What the user calls it.'),
  hidden: about(z.boolean().default(false), 'Hidden parts are kept but neither shown nor exported.'),
  locked: about(z.boolean().default(false), 'Locked parts are not moved, changed or removed by hand.'),
  keep: about(
    z.enum(['inside', 'outside']).default('inside'),
    '`inside`: the shape is what stays (a positive); `outside`: the shape is cut away and the sheet stays (a negative).',
  ),
  selfAdhesive: about(
    z.boolean().default(false),
    'Islands stay where they are because the stock sticks: they are neither bridged nor found wanting.',
  ),
  placement: partPlacementSchema.describe(
    'Where its own coordinates lie on the sheet; all that it is made of goes with it.',
  ),
  along: about(
    id.nullable().default(null),
    'Id of the part it goes along with: its place then counts from that part’s; null when it goes by itself.',
  ),
  overallWidth: about(
    length.nullable().default(null),
    'Width of the finished outline in the part’s own coordinates, in mm, which all it is made of is sized to, whatever the words are; null: members are as large as they say.',
  ),
  members: about(z.array(memberSchema).max(LIMITS.members), 'What the part is made of, combined in order.'),
  steps: about(
    z
      .array(stepSchema)
      .max(16)
      .default([{ kind: 'weld', on: true }]),
    'How the outlines are prepared, in order.',
  ),
  work: about(z.array(workSchema).max(LIMITS.operations).default([]), 'Which operation does what to it.'),
});

const operationSchema = z.strictObject({
  id,
  name: about(name.min(1), 'What the user calls it; the layer or group in files.'),
  kind: about(z.enum(['cut', 'score', 'engrave', 'mark']), 'What it does to the stock.'),
  on: about(z.boolean().default(true), 'Operations that are off are not exported.'),
  tip: about(
    z.number().min(0.001).max(1000).nullable().default(null),
    'Width of the line it makes, of a pen, a scribe or a beam, in mm; null when not given.',
  ),
  scan: about(
    z
      .strictObject({
        interval: about(z.number().min(0.001).max(100).default(0.1), 'From line to line in mm.'),
        direction: about(z.number().min(-360).max(360).default(0), 'Of the lines, in degrees from level.'),
      })
      .nullable()
      .default(null),
    'How a beam scans areas that are handed over as a whole; null when not given.',
  ),
  colour: about(colour.nullable().default(null), 'Colour in files; null follows the colour key.'),
});

const colourKeySchema = z.strictObject({
  cut: colour.default('#3730A3'),
  score: colour.default('#0F766E'),
  engrave: colour.default('#92400E'),
  mark: colour.default('#BE185D'),
});

const exportSchema = z.strictObject({
  page: about(
    z.enum(['work', 'sheet']).default('work'),
    '`work`: the page fits the work, its corner is the origin; `sheet`: the page is the sheet.',
  ),
  arcTolerance: about(
    z.number().min(LIMITS.arcToleranceLeastMm).max(LIMITS.arcToleranceMostMm).default(0.02),
    'How far lines and arcs in DXF may stray from the curves, in mm.',
  ),
  markTolerance: about(
    z.number().min(LIMITS.arcToleranceLeastMm).max(LIMITS.arcToleranceMostMm).default(0.127),
    'The same for what is marked.',
  ),
  dxf: about(z.enum(['R12', '2000', '2007']).default('2007'), 'Version of DXF files.'),
  lineWidth: about(z.number().min(0.001).max(10).default(0.025), 'Width of lines drawn in SVG and PDF, in mm.'),
});

const leftAsIsSchema = z.strictObject({
  finding: about(z.string().max(300), 'Key of the finding.'),
  reason: about(z.string().max(1000).default(''), 'Why, in the user’s words.'),
});

const standardOperations = () =>
  [
    { id: 'engrave', name: 'Engrave', kind: 'engrave', on: true, tip: null, scan: null, colour: null },
    { id: 'mark', name: 'Mark', kind: 'mark', on: true, tip: null, scan: null, colour: null },
    { id: 'score', name: 'Score', kind: 'score', on: true, tip: null, scan: null, colour: null },
    { id: 'cut', name: 'Cut', kind: 'cut', on: true, tip: null, scan: null, colour: null },
  ] satisfies Operation[];

/** Sizes that are easily had, from coarse to fine. */
const standardTools = () =>
  [
    { id: 'flat-3', shape: 'flat', tip: 3, angle: 60, depth: 0.5, feed: 1000 },
    { id: 'flat-2', shape: 'flat', tip: 2, angle: 60, depth: 0.5, feed: 900 },
    { id: 'flat-1-5', shape: 'flat', tip: 1.5, angle: 60, depth: 0.5, feed: 800 },
    { id: 'flat-1', shape: 'flat', tip: 1, angle: 60, depth: 0.5, feed: 700 },
    { id: 'round-1', shape: 'round', tip: 1, angle: 60, depth: 0.3, feed: 700 },
    { id: 'cone-60', shape: 'cone', tip: 0.2, angle: 60, depth: 0.4, feed: 600 },
    { id: 'cone-30', shape: 'cone', tip: 0.1, angle: 30, depth: 0.3, feed: 500 },
  ] satisfies ListedTool[];

/** Whether a part goes along with itself by way of others. */
function goesInCircle(id: string, leaders: ReadonlyMap<string, string | null>): boolean {
  let next = leaders.get(id) ?? null;
  for (let steps = 0; next !== null && steps <= leaders.size; steps++) {
    if (next === id) return true;
    next = leaders.get(next) ?? null;
  }
  return false;
}

export const jobSchema = z
  .strictObject({
    format: about(z.literal(JOB_FORMAT), 'Version of this format.'),
    title: about(name.default('Untitled'), 'What the job is called.'),
    tags: about(
      z.array(z.string().min(1).max(LIMITS.tagCharacters)).max(LIMITS.tags).default([]),
      'Words to find it by.',
    ),
    units: about(z.enum(['mm', 'in']).default('mm'), 'Unit lengths are shown in. The document itself is always in mm.'),
    sheet: sheetSchema,
    parts: about(z.array(partSchema).max(LIMITS.parts).default([]), 'What comes off the machine, in order.'),
    operations: about(
      z.array(operationSchema).max(LIMITS.operations).default(standardOperations),
      'In the order they run.',
    ),
    tools: about(
      z.array(listedToolSchema).max(LIMITS.tools).default(standardTools),
      'Tools there are to fill letters with; one that suits is proposed from these.',
    ),
    colourKey: colourKeySchema
      .default({ cut: '#3730A3', score: '#0F766E', engrave: '#92400E', mark: '#BE185D' })
      .describe('Colours the machine reads, by kind of operation.'),
    export: exportSchema
      .default({ page: 'work', arcTolerance: 0.02, markTolerance: 0.127, dxf: '2007', lineWidth: 0.025 })
      .describe('How files are written.'),
    leftAsIs: about(z.array(leftAsIsSchema).max(2000).default([]), 'Findings the user has looked at and left.'),
  })
  .superRefine((job, context) => {
    const operations = new Set(job.operations.map((o) => o.id));
    const unique = (ids: readonly string[], path: (string | number)[]) => {
      ids.forEach((value, i) => {
        if (ids.indexOf(value) !== i)
          context.addIssue({ code: 'custom', path: [...path, i, 'id'], message: `the id “${value}” is used twice` });
      });
    };
    unique(
      job.operations.map((o) => o.id),
      ['operations'],
    );
    unique(
      job.parts.map((p) => p.id),
      ['parts'],
    );
    unique(
      job.tools.map((t) => t.id),
      ['tools'],
    );
    const leaders = new Map(job.parts.map((p) => [p.id, p.along]));
    job.parts.forEach((part, i) => {
      if (part.along !== null && !leaders.has(part.along))
        context.addIssue({
          code: 'custom',
          path: ['parts', i, 'along'],
          message: `there is no part “${part.along}”`,
        });
      if (goesInCircle(part.id, leaders))
        context.addIssue({
          code: 'custom',
          path: ['parts', i, 'along'],
          message: 'parts can’t go along with each other in a circle',
        });
      unique(
        part.members.map((m) => m.id),
        ['parts', i, 'members'],
      );
      part.work.forEach((work, k) => {
        if (!operations.has(work.operation))
          context.addIssue({
            code: 'custom',
            path: ['parts', i, 'work', k, 'operation'],
            message: `there is no operation “${work.operation}”`,
          });
      });
    });
  });

export type Job = z.infer<typeof jobSchema>;
export type Sheet = z.infer<typeof sheetSchema>;
export type Part = z.infer<typeof partSchema>;
export type Member = z.infer<typeof memberSchema>;
export type Lettering = z.infer<typeof letteringSchema>;
export type Copy = z.infer<typeof copySchema>;
export type DrawnPath = z.infer<typeof pathSchema>;
export type Artwork = z.infer<typeof artworkSchema>;
export type CloseSettings = z.infer<typeof closeSchema>;
/** A member that is a plain shape. */
export type Shape = Exclude<Member, Lettering | Copy | Artwork | DrawnPath>;
export type ShapeKind = Shape['kind'];
export type Placement = z.infer<typeof placementSchema>;
export type CloseUp = z.infer<typeof closeUpSchema>;
export type LetterChange = z.infer<typeof letterChangeSchema>;
export type Step = z.infer<typeof stepSchema>;
export type StepOf<K extends Step['kind']> = Extract<Step, { kind: K }>;
export type IslandSetting = z.infer<typeof islandSettingSchema>;
export type PlacedBridge = z.infer<typeof placedBridgeSchema>;
export type TieAnswer = z.infer<typeof tieAnswerSchema>;
export type Work = z.infer<typeof workSchema>;
export type Operation = z.infer<typeof operationSchema>;
export type FillTool = z.infer<typeof fillToolSchema>;
export type ListedTool = z.infer<typeof listedToolSchema>;
export type OperationKind = Operation['kind'];
export type ExportSettings = z.infer<typeof exportSchema>;
