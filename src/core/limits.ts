/** Every limit of the core in one place. Each is tested; each has a sentence where a user can meet it. */
export const LIMITS = {
  /** Numbers, of eight bytes each, that remembered results take together before the oldest are forgotten. */
  numbersRemembered: 32_000_000,
  /** Lines that fill several parts of one operation which are still brought into one order over all of them. */
  linesOrderedOverParts: 5_000,
  /** Things of one operation that are each put in order by themselves; of more, all of a part are run together. */
  putInOrder: 6_000,
  /** Parts of which it is told whether to go over them together, rows that are compared for that, and the least it must save, in seconds. */
  areasApart: 40,
  rowsCompared: 2_000,
  savedSeconds: 2,
  /** Times that are measured, against those that are reckoned. */
  timeFactorLeast: 0.05,
  timeFactorMost: 20,
  /** Prices, in the money of the shop. */
  price: 1_000_000,
  /** How many times as long an order is searched for when that is asked for by hand. */
  longSearch: 40,
  /** Rows of an area that are timed one by one; of more every so manieth stands for those between. */
  rowsTimed: 100_000,
  /** Speeds of machines and of what they do, in mm a second. */
  speedLeastMmS: 0.001,
  speedMostMmS: 100_000,
  /** Segments that a machine may be said to take in one file. */
  machineSegments: 100_000_000,
  /** Thicknesses of a material in stock, and sizes of its sheets. */
  thicknesses: 60,
  sheetSizes: 30,
  /** Things that must not be done to a material. */
  refusals: 8,
  /** How often an operation goes over the same line. */
  passes: 200,
  /** Length of lead-ins and lead-outs, in mm. */
  leadMm: 200,
  /** Rows of a roster, and columns, characters of a cell and of a column's name, and how often a row is made. */
  rosterRows: 2_000,
  columns: 40,
  /** From so many rows on, a roster is prepared by row workers where there are any; rows that one of them takes at once. */
  rowsForWorkers: 300,
  rowsAtOnce: 10,
  /** How long a row worker may take over one row, in seconds: a killed one’s rows are taken up after little more. */
  rowSeconds: 40,
  /** Rows that are told of in one answer. */
  rowsTold: 200,
  cellCharacters: 500,
  columnCharacters: 60,
  copiesOfRow: 1_000,
  /** Sheets and places that names are laid on, directions they may lie in, and room around them, in mm. */
  laidSheets: 1_000,
  laidPlaces: 5_000,
  laidTurns: 36,
  /** Corners of an off-cut. */
  offCutCorners: 400,
  /** Blanks in a row or a column, and how much larger or smaller a name is made for its blank. */
  blanksAlong: 100,
  laidScale: 1_000,
  spacingMm: 1_000,
  /** Farthest that a running number starts from 0, and steps. */
  runningNumber: 1_000_000_000,
  /** Size of a list of names that is brought in, in bytes. */
  listBytes: 64 * 1024 * 1024,
  /** Sheets of a job. */
  sheets: 20,
  /** Letters of a part that are given to an operation by themselves. */
  lettersAlone: 2_000,
  /** Width of a tab, in mm, and how many an outline gets. */
  tabMm: 50,
  tabsOfOutline: 100,
  /** Starts of cuts, and tabs, placed by hand on a part. */
  cutPlaces: 2_000,
  /** Machines, materials, tools, and rows of cut charts: each of these. */
  shopEntries: 5_000,
  /** Jobs listed that use something of the shop. */
  shopUsers: 20,
  /** Size of a file with a shop, as text, in bytes. */
  shopBytes: 4 * 1024 * 1024,
  /** Size of a job document as JSON text, in bytes. */
  documentBytes: 8 * 1024 * 1024,
  /** Characters in one lettering member that are still prepared. */
  letteringCharacters: 5_000,
  /** Characters in one lettering member that a document may hold at all. */
  letteringStoredCharacters: 100_000,
  /** Letters of one lettering that are moved, turned or sized by themselves. */
  letterChanges: 2_000,
  /** Letters of one part whose readability is measured. */
  lettersRead: 300,
  /** Pairs of one lettering that are joined as is said for them. */
  pairAnswers: 500,
  /** Characters that one letter of such a pair stands for: letters with marks, ligatures. */
  pairCharacters: 32,
  /** Lines of one lettering that have a typeface, size or spacing of their own. */
  ownLines: 200,
  /** Crests of a wave that words run along, on each side of its middle. */
  crests: 500,
  /** Pixels of a picture that are kept; one with more is made smaller as it comes in. */
  rasterPixels: 16_000_000,
  /** Pixels of a picture that are decoded at all, and the longest side of one. */
  decodedPixels: 120_000_000,
  rasterSide: 30_000,
  /** Width of a pixel of a picture on the sheet, in mm. */
  pixelLeastMm: 1e-5,
  pixelMostMm: 1e3,
  /** Pictures on a sheet. */
  placedPictures: 20,
  /** Places in a picture that are pressed on to say which tones belong to a shape. */
  tonePicks: 24,
  /** Outlines that one trace comes to; of a picture with more only the largest are kept. */
  tracedOutlines: 4_000,
  /** Characters of a quantity as typed. */
  quantityCharacters: 120,
  /** Parts in a job. */
  parts: 500,
  /** Sides of a polygon, points of a star. */
  shapeCorners: 120,
  /** Segments of all copies in a part; copies of copies grow fast. */
  copiedSegments: 100_000,
  /** Steps of a part. */
  steps: 16,
  /** Members in a part. */
  members: 200,
  /** Pieces of one part that come away and are named one by one; the rest are counted. */
  piecesNamed: 60,
  /** Thin places, and tight gaps, of one part that are named one by one; the rest are counted. */
  thinNamed: 40,
  /** Pieces of one part that get studs, and how many each gets at most. */
  piecesStudded: 500,
  studsEach: 8,
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
  /** Highest number of a pen in plotter files, and pens that stand for one operation. */
  pens: 255,
  pensOfOperation: 16,
  /** Bytes that a name of a file has of each of a job's title, its part and its material. */
  fileNamePartBytes: 80,
  /** Bytes of a file’s name without its ending: disks take 255 with it. */
  fileNameBytes: 240,
  /** Tags of a job, and characters of one tag. */
  tags: 24,
  tagCharacters: 40,
  /** Jobs that a tag is given to, or taken from, at once. */
  jobsTagged: 500,
  /** Characters of what is said of a starter, and words that are asked for when a job is started from it. */
  starterAbout: 300,
  starterWords: 12,
  /** Starters of the shop's own that are shown. */
  starters: 200,
  /** Characters of a title or a name. */
  nameCharacters: 200,
  /** Longest and shortest length anywhere in a document, in mm (100 m, 1 µm). */
  lengthMm: 100_000,
  leastLengthMm: 0.001,
  /** Largest and smallest that a member may come to, all its factors together, in mm (1 km, 1 µm). */
  memberMostMm: 1_000_000,
  memberLeastMm: 0.001,
  /** Coordinates of lines kept in shares of what they lie on: of capital heights, or of a first member. */
  pathShares: 10_000,
  /** Radius of an arc in path data, in mm (10 km); a flatter one is as good as a curve. */
  arcRadiusMm: 10_000_000,
  /** Where a tie placed by hand lies, in sizes of its piece. */
  tieShares: 1_000,
  /** Least and greatest sheet side, in mm. */
  sheetLeastMm: 1,
  sheetMostMm: 20_000,
  /** Size of a typeface file, in bytes. */
  typefaceBytes: 32 * 1024 * 1024,
  /** What a typeface file may unpack to, in bytes; faces of a collection, and glyphs of a face. */
  typefaceUnpackedBytes: 64 * 1024 * 1024,
  facesInFile: 64,
  facesFeatures: 200,
  /** Typeface files that are kept in the list. */
  typefacesKept: 5_000,
  /** Longest that reading a typeface may take, in seconds. */
  typefaceSeconds: 20,
  /** Axes of a variable face, places along them that have a name, and forms that a feature gives. */
  faceAxes: 64,
  faceInstances: 500,
  faceForms: 100,
  /** Characters of what a face says of its licence. */
  faceWords: 2_000,
  typefaceGlyphs: 65_535,
  /** How deep glyphs put together from others may lie in each other; lines and curves of one glyph. */
  compositeDepth: 16,
  glyphSegments: 20_000,
  /** Tolerance for curves made into arcs, in mm. */
  arcToleranceLeastMm: 0.001,
  arcToleranceMostMm: 1,
  /** A job taken along: its bytes, packed and unpacked, and files in it beside the document. */
  takenBytes: 512 * 1024 * 1024,
  takenFiles: 2_000,
  /** Size of a drawing that is brought in, in bytes; the same once it is unpacked. */
  drawingBytes: 64 * 1024 * 1024,
  /** Size of a file, or of a drawing read from one, that is kept with the jobs, in bytes. */
  assetBytes: 128 * 1024 * 1024,
  /** Kept files that are asked for at once, and what they may weigh together in one answer, in bytes; the rest is asked for by itself. */
  assetsAtOnce: 16,
  assetsAtOnceBytes: 32 * 1024 * 1024,
  /** Size of all files that are kept together, in bytes. */
  assetsBytes: 8 * 1024 * 1024 * 1024,
  /** How long a file that nothing uses any more is kept, in days. */
  unusedAssetDays: 30,
  /** Longest that the page waits for an answer of the server, in seconds. */
  answerSeconds: 60,
  /** Pages of a file that are offered. */
  pages: 500,
  /** Operators of a page that are read. */
  pageOperators: 500_000,
  /** Lines and curves of a page that its small picture shows. */
  pagePictureSegments: 20_000,
  /** Lines and curves that the picture of a file shows before it is brought in; more than these hold a browser up. */
  previewSegments: 100_000,
  /** Longest that reading a drawing may take, in seconds. */
  readSeconds: 60,
  /** Elements of a drawing, those it repeats included, and how deep they may lie in each other. */
  drawnElements: 500_000,
  drawnDepth: 256,
  /** How deep markup may go before reading stops altogether: resolving names takes longer with every level. */
  markupDepth: 4_000,
  /** Characters of a selector of a style sheet in a drawing, and of a typeface named in short. */
  selectorCharacters: 1_000,
  /** Times a drawing may use a shape or block again. */
  usedShapes: 20_000,
  /** Lines and curves of a drawing. */
  drawnSegments: 1_000_000,
  /** Runs that the bench machine tells of, files in its line, lines of its log that are shown, and the size of a file, in bytes. */
  machineRuns: 200,
  machineLine: 150,
  machineLogLines: 200,
  /** Events in the log of the bench machine, before it is made shorter. */
  machineEvents: 20_000,
  machineFileBytes: 32 * 1024 * 1024,
  /** Files of a job that are kept as they were given out, and those given out at once. */
  givenFiles: 200,
  givenAtOnce: 100,
  /** Characters in the name of a file that is given out. */
  fileNameCharacters: 255,
  /** Pages of the work at true size, and faces that are compared on one page. */
  paperPages: 120,
  facesCompared: 6,
  /** Differences of a file that are told one by one. */
  proofDifferences: 50,
  /** Lines of words in a drawing that are set; characters of words that are looked at. */
  drawnTexts: 1_000,
  drawnWords: 4 * 1024 * 1024,
  /** Groups of a drawing that are told apart, and sentences about it. */
  drawnGroups: 400,
  drawnNotes: 20,
  /** How far from the origin a drawing may reach, in mm. */
  drawnLengthMm: 100_000,
  /** Faults in the markup of a file after which reading stops. */
  markupFaults: 1_000,
  /** Entities of a document type and their characters in all. */
  entities: 64,
  entityCharacters: 65_536,
  /** Rules of a style sheet; rules times elements that are tried. */
  styleRules: 5_000,
  styleTests: 20_000_000,
  /** Lengths of dashes and gaps after which a dashed line repeats. */
  dashes: 32,
  /** Characters of path data that a document holds for one path drawn by hand, or one part worked on by hand. */
  pathCharacters: 4 * 1024 * 1024,
  /** Widest gap that is closed, in mm, and gaps of one drawing that are answered one by one. */
  gapMostMm: 50,
  gapAnswers: 5_000,
  /** Letters, or pieces of a shape, of one part that are traced down their middle. */
  lettersTraced: 2_000,
  /** Letters whose centerlines are corrected by hand in one part. */
  lineCorrections: 500,
  /** Uneven places of centerlines, and dots on each other, of one part that are named one by one; the rest are counted. */
  unevenNamed: 8,
  clashesNamed: 8,
  /** Dots of one part: those made, and those moved or left out by hand. */
  dots: 20_000,
  dotChanges: 2_000,
  /** Lines that fill one part, rings of one part, and rows that its cover is looked at in; of more, none is made. */
  hatchLines: 1_000_000,
  hatchRings: 1_000,
  coverRows: 20_000,
  /** Missed places of one part that are named one by one; the rest are counted. */
  missedNamed: 5,
  /** Tools in a job. */
  tools: 40,
  /** Places of a job where lines are gone along twice that are named one by one; of the rest it is said that there are more. */
  twiceNamed: 20,
  /** Pairs of parts whose bounds meet that are looked at for lines in common. */
  twicePairs: 400,
  /** Pairs of what is worked whose bounds meet that are looked at for collisions. */
  collisionPairs: 400,
  /** Pairs of parts cut across each other that are named one by one. */
  collisionsNamed: 20,
  /** Gaps of one drawing that are named one by one; the rest are counted. */
  gapsNamed: 40,
  /** Bytes of a job's picture as JSON. */
  pictureBytes: 400 * 1024,
} as const;
