/** The stations in the order the work is done; findings are dealt with at one of them. */
type About = {
  readonly id: string;
  readonly word: string;
  /** What is done there. */
  readonly lead: string;
  /** What must be there before there is something to do. */
  readonly asksFor: 'parts' | 'work';
  /** Which look at the finished work is flipped to there: what the cut leaves, or the lines that fill. */
  readonly finished: 'cut' | 'worked';
};

/** The stations of the route in their order: what is done at each, and what it asks for. */
export const STATIONS = [
  {
    id: 'compose',
    word: 'Compose',
    lead: 'The sheet, and what goes on it.',
    asksFor: 'parts',
    finished: 'cut',
  },
  {
    id: 'close',
    word: 'Close',
    lead: 'Clean closed outlines, welded where they overlap.',
    asksFor: 'parts',
    finished: 'cut',
  },
  { id: 'hold', word: 'Hold', lead: 'What stays must hang together.', asksFor: 'parts', finished: 'cut' },
  { id: 'fill', word: 'Fill', lead: 'What happens inside the letters.', asksFor: 'parts', finished: 'worked' },
  {
    id: 'assign',
    word: 'Assign',
    lead: 'Which operation does what, and in which order.',
    asksFor: 'work',
    finished: 'cut',
  },
  { id: 'prove', word: 'Prove', lead: 'Look it over, then write the files.', asksFor: 'work', finished: 'cut' },
] as const satisfies readonly About[];

/** The id of a station. */
export type Station = (typeof STATIONS)[number]['id'];

/** The station of an id; the first one for any other. */
export const stationOf = (id: Station): (typeof STATIONS)[number] => STATIONS.find((s) => s.id === id) ?? STATIONS[0];
