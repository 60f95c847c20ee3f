/** Starters of words in a plate: cut out of it, sprayed through it, engraved into it. */
import { type MemberDraft, part, type ShippedStarter, starter, words } from './draft';

const cut = { what: 'outline', operation: 'cut' } as const;
const engraved = { what: 'fill', operation: 'engrave' } as const;

const hole = (id: string, x: number, y: number, across: number): MemberDraft => ({
  id,
  kind: 'ellipse',
  role: 'punch',
  placement: { x, y },
  width: across,
  height: across,
});

/** A sign of metal with words cut through it. */
const cutThrough = starter(
  'cut-through',
  'Plate with words cut out',
  'Words cut through a plate; what would drop out is bridged.',
  {
    sheet: { width: 660, height: 220, material: 'Mild steel', thickness: 3, leastWidth: 3, kerf: 1.2 },
    // A kerf as wide as this would take much of the bridges.
    operations: [
      { id: 'engrave', name: 'Engrave', kind: 'engrave' },
      { id: 'mark', name: 'Mark', kind: 'mark' },
      { id: 'score', name: 'Score', kind: 'score' },
      { id: 'cut', name: 'Cut', kind: 'cut', kerfSide: 'beside' },
    ],
    parts: [
      part(
        'plate',
        '',
        [words('Words', 'ALDER LANE\nGARDEN', 'Archivo Black', 50, { letterSpacing: 0.08, lineSpacing: 1 })],
        {
          keep: 'outside',
          steps: [
            { kind: 'weld' },
            { kind: 'plate', across: 45, upright: 30, corner: 14, holes: 'corners', holeWidth: 8, inset: 18 },
            { kind: 'bridge', width: 5, reads: true, small: 'ask' },
          ],
          work: [cut],
        },
      ),
    ],
  },
);

/** A stencil to spray or paint through. */
const toPaint = starter(
  'to-paint',
  'Paint stencil',
  'Words to spray or paint through, with room around them; what would drop out is bridged.',
  {
    sheet: { width: 440, height: 170, material: 'Card', thickness: 0.5, leastWidth: 0.8, kerf: 0.1 },
    parts: [
      part('stencil', '', [words('Words', 'BEANS', 'Archivo Black', 60, { letterSpacing: 0.06 })], {
        keep: 'outside',
        steps: [
          { kind: 'weld' },
          { kind: 'plate', across: 38, upright: 38, corner: 4 },
          { kind: 'bridge', width: 4, reads: true, small: 'ask' },
        ],
        work: [cut],
      }),
    ],
  },
);

/** A tag on which the words are left standing. */
const raised = starter(
  'raised',
  'Tag engraved around its words',
  'The ground is engraved away, the words stay standing, and the edge is cut.',
  {
    sheet: { width: 140, height: 70, material: 'Acrylic', thickness: 3, leastWidth: 1.5, kerf: 0.15 },
    parts: [
      part(
        'tag',
        'Tag',
        [
          { id: 'edge', kind: 'rectangle', placement: { x: 0, y: 0 }, width: 110, height: 40, corner: 8 },
          hole('hole', -45, 0, 6),
        ],
        { work: [cut] },
      ),
      part(
        'ground',
        'Ground',
        [
          { id: 'panel', kind: 'rectangle', placement: { x: 8, y: 0 }, width: 86, height: 32, corner: 5 },
          words('Words', 'TROWEL', 'Poppins', 15, {
            role: 'punch',
            placement: { x: 8, y: 0 },
            letterSpacing: 0.05,
            fit: { to: 'box', width: 86, height: 32, margin: 6, centre: 'ink' },
          }),
        ],
        { along: 'tag', work: [engraved] },
      ),
    ],
  },
);

/** A plaque with engraved words and holes for screws. */
const plaque = starter(
  'plaque',
  'Engraved plaque',
  'Words engraved into a plate with two holes for screws; its edge is cut.',
  {
    sheet: { width: 230, height: 130, material: 'Hardwood', thickness: 6, leastWidth: 3.6, kerf: 0.2 },
    parts: [
      part(
        'plaque',
        'Plaque',
        [
          { id: 'edge', kind: 'rectangle', placement: { x: 0, y: 0 }, width: 200, height: 100, corner: 12 },
          hole('left', -88, 0, 5),
          hole('right', 88, 0, 5),
        ],
        { work: [cut] },
      ),
      part(
        'inscription',
        'Inscription',
        [
          words('Words', 'Sit a while\nunder the alder', 'Libre Baskerville', 14, {
            fit: { to: 'box', width: 156, height: 84, margin: 4, centre: 'ink' },
          }),
        ],
        { along: 'plaque', work: [engraved] },
      ),
    ],
  },
);

/** A round emblem with words around it and in its panel. */
const emblem = starter('emblem', 'Ring emblem', 'Words around a ring, and a name in the panel across it.', {
  sheet: { width: 260, height: 260, material: 'Birch plywood', thickness: 4, leastWidth: 2, kerf: 0.2 },
  parts: [
    part('edge', 'Edge', [{ id: 'edge', kind: 'ellipse', placement: { x: 0, y: 0 }, width: 220, height: 220 }], {
      work: [cut],
    }),
    part(
      'ring',
      'Ring',
      [
        { id: 'outer', kind: 'ellipse', placement: { x: 0, y: 0 }, width: 210, height: 210 },
        { id: 'inner', kind: 'ellipse', role: 'punch', placement: { x: 0, y: 0 }, width: 206, height: 206 },
      ],
      { along: 'edge', work: [engraved] },
    ),
    part(
      'around',
      'Around',
      [
        words('Around, above and below', 'ALDER LANE\nCOMMUNITY GARDEN', 'Poppins', 13, {
          letterSpacing: 0.12,
          along: { line: { kind: 'circle', radius: 80 }, bottom: true },
        }),
      ],
      { along: 'edge', work: [engraved] },
    ),
    part(
      'panel',
      'Panel',
      [
        { id: 'panel', kind: 'rectangle', placement: { x: 0, y: 0 }, width: 150, height: 52, corner: 10 },
        {
          id: 'within',
          kind: 'rectangle',
          role: 'punch',
          placement: { x: 0, y: 0 },
          width: 146,
          height: 48,
          corner: 8,
        },
      ],
      { along: 'edge', work: [engraved] },
    ),
    part(
      'name',
      'Name',
      [
        words('In the panel', 'Greenhouse', 'Pacifico', 20, {
          fit: { to: 'box', width: 146, height: 48, margin: 7, centre: 'ink' },
        }),
      ],
      { along: 'edge', work: [engraved] },
    ),
  ],
});

/** Words in plates. */
export const OF_PLATES: readonly ShippedStarter[] = [cutThrough, toPaint, raised, plaque, emblem];
