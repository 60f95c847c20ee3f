/** Every limit of the core in one place. Each is tested; each has a sentence where a user can meet it. */
export const LIMITS = {
  /** Size of a job document as JSON text, in bytes. */
  documentBytes: 8 * 1024 * 1024,
  /** Characters in one lettering member that are still prepared. */
  letteringCharacters: 5_000,
  /** Characters in one lettering member that a document may hold at all. */
  letteringStoredCharacters: 100_000,
  /** Letters of one lettering that are moved, turned or sized by themselves. */
  letterChanges: 2_000,
  /** Characters of a quantity as typed. */
  quantityCharacters: 120,
  /** Parts in a job. */
  parts: 500,
  /** Sides of a polygon, points of a star. */
  shapeCorners: 120,
  /** Segments of all copies in a part; copies of copies grow fast. */
  copiedSegments: 100_000,
  /** Members in a part. */
  members: 200,
  /** Pieces of one part that come away and are named one by one; the rest are counted. */
  piecesNamed: 60,
  /** Thin places, and tight gaps, of one part that are named one by one; the rest are counted. */
  thinNamed: 40,
  /** Pieces of one part that are joined by ties; of more, none is. */
  piecesTied: 200,
  /** Islands of one part that are bridged; of more, none is. */
  islands: 2_000,
  /** Bridges of one island, and bridges of one part placed by hand. */
  bridgesOfIsland: 4,
  bridgesPlaced: 2_000,
  /** How far from its letter's origin a bridge may be kept, in capital heights. */
  bridgeCapitals: 1_000,
  /** Farthest offset, border and the like, in mm. */
  offsetMostMm: 200,
  /** Operations in a job. */
  operations: 64,
  /** Tags of a job, and characters of one tag. */
  tags: 24,
  tagCharacters: 40,
  /** Characters of a title or a name. */
  nameCharacters: 200,
  /** Longest length anywhere in a document, in mm (100 m). */
  lengthMm: 100_000,
  /** Least and greatest sheet side, in mm. */
  sheetLeastMm: 1,
  sheetMostMm: 20_000,
  /** Size of a typeface file, in bytes. */
  typefaceBytes: 32 * 1024 * 1024,
  /** Tolerance for curves made into arcs, in mm. */
  arcToleranceLeastMm: 0.001,
  arcToleranceMostMm: 1,
  /** Bytes of a job's picture as JSON. */
  pictureBytes: 400 * 1024,
} as const;
