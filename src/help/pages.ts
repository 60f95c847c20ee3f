/** The pages of the help: what each screen is for, how common things are done there, and its keys. */
import { STATIONS, type Station } from '@/core/inspect/stations';

/** A key, and what it does. */
export type Key = readonly [key: string, does: string];

/** A page of the help. */
export type HelpPage = {
  readonly id: Station | 'jobs' | 'new' | 'typefaces' | 'shop';
  readonly word: string;
  /** What it is for. */
  readonly about: string;
  /** What is said of it once, when somebody comes to it for the first time. */
  readonly first: string | null;
  readonly points: readonly { readonly head: string; readonly words: string }[];
  /** Words under its three pictures; a page without pictures has none. */
  readonly captions: readonly string[];
  readonly keys: readonly Key[];
};

/** Keys that are the same at every station. */
export const KEYS_EVERYWHERE: readonly Key[] = [
  [`1 to ${STATIONS.length}`, 'go to a station'],
  ['F', 'fit the sheet in sight; with Shift what is selected'],
  ['Space and drag', 'move the view; the middle button does it too'],
  ['+ and −', 'zoom'],
  ['Arrows', 'nudge by 1 mm or 1/16 in; with Shift ten times, with Alt a tenth'],
  [
    'Shift or Ctrl and press',
    'add a part, or a letter, to what is selected; a band drawn over empty sheet selects what it touches',
  ],
  ['Tab', 'next part (when the sheet has the focus); with Shift the one before'],
  ['Esc', 'a step out'],
  ['Delete', 'remove what is selected: a part, a bridge, nodes, a dot of a row'],
  ['D', 'duplicate'],
  ['Ctrl or Cmd Z', 'undo; with Shift redo'],
  ['Ctrl or Cmd C, X, V', 'copy, cut and paste, into another job too; words and drawings from elsewhere'],
  ['Ctrl or Cmd A', 'select all parts'],
  ['V', 'while held: the sheet as cut (at Fill: as filled), or back to the drawing'],
  ['E', 'export'],
  ['?', 'the help of where you are'],
];

const STATION_PAGES: Readonly<Record<Station, Omit<HelpPage, 'id' | 'word'>>> = {
  compose: {
    about:
      'The sheet and what goes on it: words, shapes, drawings and pictures, where they lie and how large they are.',
    first: 'Type words here, or bring a drawing in; whatever is done to them later, they stay words you can change.',
    points: [
      {
        head: 'Words',
        words:
          'Press Lettering and type. The typeface, its size by capitals or by overall width, and spacing are beside; each line may have its own, and single letters can be moved, turned and sized.',
      },
      {
        head: 'For a list of names',
        words:
          'Press “For a list of names” under the words: they become a field, and the list is along the bottom. Type, paste or bring names in. The row you press is on the sheet; what you change there is for all rows, or for that one alone. Pictures show all of them, the worst first, and mend what is wrong in one press. “On sheets” lays them on your stock, as close as their shapes go. Lists of hundreds go quicker with row workers beside Needlefile; its README says how they are started.',
      },
      {
        head: 'Next to what is there',
        words:
          'New things come beside what is chosen, in its typeface, size and operation; on a plate that is cut, words come in its middle to be engraved, and go along with it. “Into it” makes them one thing with it: added, cut out, or keeping only what lies within.',
      },
      {
        head: 'More than one stock',
        words:
          '“Another sheet” adds stock of another material or thickness. Each has parts, settings, findings and files of its own; “On sheet” puts what is chosen on another, at the same place. A copy or a backing follows its words from sheet to sheet.',
      },
      {
        head: 'Around a part',
        words:
          'With a part chosen: cut along its edge, a backing to glue or engrave it on, or an outline around. All of them follow the words.',
      },
      {
        head: 'Drawings and pictures',
        words:
          'Drop a file anywhere. Drawings say how large they are and what each layer is for; pictures can be traced, or drawn over with the pen.',
      },
      {
        head: 'The sheet',
        words:
          'With nothing chosen: its size, material and thickness. The least safe width and the kerf follow the material until they are typed.',
      },
    ],
    captions: ['Words in two lines', 'Words along an arc', 'Words cut out of a plate'],
    keys: [
      ['T', 'type the words'],
      [
        'Enter',
        'a step inside: from a part to what it is made of, then to letters or nodes; while drawing a path, end it open',
      ],
      ['Alt while dragging', 'without snapping'],
    ],
  },
  close: {
    about: 'Outlines a machine can follow: closed, joined where they overlap, with nothing drawn twice.',
    first: 'Letters that overlap are welded into one outline here; gaps in drawings are found and closed.',
    points: [
      {
        head: 'Weld',
        words: 'On from the start: overlapping letters become one outline. Off, each overlap would be cut.',
      },
      {
        head: 'Gaps',
        words:
          'Of drawings that were brought in: ends that meet are joined by themselves, those that could be meant otherwise are asked about one by one.',
      },
      {
        head: 'Nodes',
        words:
          'Double press a path, or press Enter, to work on its nodes. What was changed by hand stands in place of what the steps give, and can be let go again.',
      },
    ],
    captions: [
      'Not welded: every overlap is an outline',
      'Welded: one outline, still words',
      'A shape cut out of another',
    ],
    keys: [['Enter', 'work on the nodes of a path']],
  },
  hold: {
    about: 'What stays must hang together: islands bridged, letters joined, nothing too thin, and how it is hung.',
    first: 'What would drop out or come apart is shown here, with the ways to hold it.',
    points: [
      {
        head: 'What stays',
        words: 'The shape, such as a name to hang; or the stock, such as a stencil, whose letters are cut out of it.',
      },
      {
        head: 'Islands',
        words:
          'Middles of letters such as O drop out of a stencil. Bridges hold them where they cost the letter least; each can be dragged, turned, widened, pinned or left out.',
      },
      {
        head: 'One piece',
        words:
          'Letters are closed up, stand in a bar, or are tied. Whether a part is to hang together is asked once and kept with it.',
      },
      {
        head: 'Hanging and mounting',
        words:
          'A hole or a ring goes over the middle of the weight, so that the part hangs level. Studs keep clear of the edges of each letter, and a drill paper shows them at true size.',
      },
      {
        head: 'Several at once',
        words: 'Choose several parts with Shift or Ctrl: what is set then is set for all, and what differs says mixed.',
      },
    ],
    captions: ['Islands held by bridges', 'Letters standing in a bar', 'A ring over the middle of the weight'],
    keys: [['Shift while dragging a bridge', 'it keeps its direction; arrows nudge the one that is chosen']],
  },
  fill: {
    about:
      'What happens inside the letters: nothing, an area for a beam to scan, lines for a pen or a turning tool, or one line down their middle.',
    first: 'Choose a part to fill its inside; with nothing chosen all of them are listed.',
    points: [
      {
        head: 'An area',
        words:
          'Handed over as a whole, for a machine that scans it. How far apart its lines are can be said and is written into the file.',
      },
      {
        head: 'Lines',
        words:
          'As wide as the tool: a pen’s line, a flat, round or pointed end. What it can’t reach is shown, letter by letter, and the tools of the job can be tried against each other.',
      },
      {
        head: 'Down the middle',
        words:
          'One line in the middle of each stroke, for a scribe or a pen; letters can be mended by hand. Serifs are strokes of their own, or left out, so that a serif typeface is drawn as a plain one; of letters drawn in outline, the line of what they enclose.',
      },
      {
        head: 'Dots',
        words: 'Stones, holes or pecks in a row, along outlines or down the middle, each of which can be moved.',
      },
    ],
    captions: ['An area to be scanned', 'Lines as wide as a pen', 'One line down the middle'],
    keys: [['Delete', 'leave the chosen dot out']],
  },
  assign: {
    about: 'Which operation does what, in which order it runs, and which colour your machine reads for it.',
    first: 'Choose rows by their boxes to give several parts to an operation in one press.',
    points: [
      {
        head: 'Operations',
        words:
          'They run from the top down; drag them into order. What comes off is cut last, so that nothing moves before it is done.',
      },
      {
        head: 'Settings',
        words:
          'Speed, power, passes and the rest come from the cut chart of the machine for the material and thickness. Press them to type over one; what was typed says so, with the way back.',
      },
      {
        head: 'Order and time',
        words:
          'Within an operation the least way is found, with what lies in a piece before the piece is cut free. Parts can be pinned to be run first, the order can go row by row or so that the heat spreads, and is shown on the sheet. Times come from how the machine of the Shop moves; type back what one took, and the next are reckoned by it. “Search longer” looks for a better order until you stop it, and keeps it.',
      },
      {
        head: 'Areas, settings and price',
        words:
          'Areas that lie far apart are often gone over faster in goes of their own: that is told with what it saves, shown on the sheet, and taken or undone in one press. How time changes with speed, rows or passes is drawn, and a value is taken by a press. With prices of stock, machine hours and pierces, here or in the Shop, the job is priced.',
      },
      {
        head: 'Kerf side',
        words:
          'Beside: half the width of the cut outside of edges and inside of holes, so that sizes come out true. By layer: the machine does that, and layers in the file say on which side. “Cuts one by one” sets one outline otherwise.',
      },
      {
        head: 'Lead-in',
        words:
          'A cut begins in scrap and runs in by a line or an arc, where the whole way is clear of what is kept; where there is no room it is said. Overrun: how far it goes on beyond where it began.',
      },
      {
        head: 'Tabs and starts',
        words:
          'Tabs are small places left uncut, so that a piece stays in its sheet. Drag a tab, or the arrow where a cut begins, along its outline; it stays with its letter. Delete takes a tab out and lets a start go.',
      },
      {
        head: 'Given to',
        words:
          'Outline and inside of each part, and what its steps draw. With several rows chosen the row above sets all of them.',
      },
      {
        head: 'Letters by themselves',
        words:
          'Some letters, or all dots of i and j, go to an operation of their own: another pen, another stone, another depth. They keep it through new words. Letters that hang together go together.',
      },
      {
        head: 'Colours and pens',
        words:
          'The colour key says what your machine reads for each kind; an operation may have a colour of its own. The pen key is for plotter files.',
      },
    ],
    captions: [
      'Words engraved, the plate cut',
      'A line scored, words marked, the plate cut',
      'One of three tags scored',
    ],
    keys: [['Delete', 'take the chosen tab out, or let the chosen start go']],
  },
  prove: {
    about:
      'The files as the machine runs them, against what the job means; what is in them; then the files themselves.',
    first: 'Prove the files: they are run as your machine does before the stock is cut. Then write the file it reads.',
    points: [
      {
        head: 'Proof',
        words:
          'The very bytes that go out are read and run on the bench machine. Whatever differs from what the job means is told with its place. Play the run on the sheet: what comes free falls away. Any change takes the proof away.',
      },
      {
        head: 'Files',
        words:
          'SVG, DXF, PDF and HPGL at true size. What is written is read back and compared before it is given out; a file that differs is not.',
      },
      {
        head: 'Names',
        words:
          'Made of what you tick, in your order: the job, the piece, material, thickness, date and a number. The name is shown as it will be.',
      },
      {
        head: 'For your machine',
        words:
          'In one press as its entry in the Shop says: format and version, kinds of curves, colours, names of layers, one file or one for each operation. More segments than it takes are not given out.',
      },
      { head: 'Part of it', words: 'Choose parts and write only these.' },
      {
        head: 'Test piece',
        words:
          'A small job in the same stock: fragile letters at true size, slots for the width of the cut, a field of settings. Cut it, open it again, press what came out well: the cut chart has it, as tried.',
      },
      {
        head: 'On paper',
        words:
          'The proof sheet says what will be made, to be printed and signed. True size is for pages that are pasted together by their crosses. Pictures for the customer are in the colours of the stock.',
      },
      {
        head: 'Given out',
        words:
          'Every file you write is kept with the job, with its version and proof. Have it again as it was, or compare it with what would be written now.',
      },
      {
        head: 'Bench machine',
        words:
          'A simulated machine with a line and a log. Send files to it, watch them run, pause and stop them: nothing is cut.',
      },
      {
        head: 'The whole job',
        words: 'Taken along in one file, with its drawings, pictures and typefaces, to be opened elsewhere.',
      },
    ],
    captions: ['As it will be written', 'Cut out of a plate', 'With marks for studs'],
    keys: [
      ['R', 'play the run, or hold it'],
      ['[ ]', 'to where the operation before, or the next, begins'],
    ],
  },
};

const OTHERS: readonly HelpPage[] = [
  {
    id: 'jobs',
    word: 'Jobs',
    about: 'All jobs of the shop, those changed last in front, each with how much there is to look at.',
    first: null,
    points: [
      {
        head: 'Finding one',
        words: 'By words of its title, material and tags; tags are given to several jobs at once.',
      },
      { head: 'Earlier versions', words: 'Every job keeps them: look at one, keep it for good, or bring it back.' },
      {
        head: 'A starter of your own',
        words: 'Keep any job as a starter; its words, stock and size are asked for anew.',
      },
      { head: 'Deleted by mistake', words: 'The message that says so takes it back.' },
    ],
    captions: [],
    keys: [['?', 'the help of where you are']],
  },
  {
    id: 'new',
    word: 'New job',
    about: 'What it is to become, in pictures. Everything can be changed later.',
    first: null,
    points: [
      {
        head: 'From a starter',
        words:
          'Choose what comes nearest, type the words, say the stock and the size, and start: steps, operations and checks are set.',
      },
      { head: 'From nothing', words: 'The empty sheet is one of them; a double press on any starts it at once.' },
    ],
    captions: [],
    keys: [['?', 'the help of where you are']],
  },
  {
    id: 'typefaces',
    word: 'Typefaces',
    about:
      'Those that ship, and those you bring in; they are kept with the shop and travel with a job that is taken along.',
    first: null,
    points: [
      {
        head: 'Bringing in',
        words: 'Drop files or whole folders. One that is broken is named, and the others come in.',
      },
      {
        head: 'Finding',
        words:
          'By name, by how the letters are built, and by what your words need: one piece, no islands, thick enough, every character.',
      },
    ],
    captions: [],
    keys: [['?', 'the help of where you are']],
  },
  {
    id: 'shop',
    word: 'Shop',
    about: 'Your machines, materials and tools, and the cut charts that say how each operation is done.',
    first: null,
    points: [
      {
        head: 'Cut charts',
        words:
          'A row is for a machine, a material, a thickness and a kind of operation. A job takes the row for its own; between two thicknesses it is reckoned from both, and beyond them nothing is said.',
      },
      {
        head: 'Tried or not',
        words:
          'What a shop begins with is made up, in the right region. Cut a test piece, put the figures right, and switch “Tried” on: jobs stop asking.',
      },
      {
        head: 'What must not be done',
        words:
          'A material can say what it must never be cut by, and why. A job that does it all the same has a fault at once.',
      },
      {
        head: 'Taking the shop along',
        words:
          '“Take along” writes all of it as a file; “Bring in” adds one to what is there. What is taken out of the shop stays in the jobs that use it.',
      },
    ],
    captions: [],
    keys: [['?', 'the help of where you are']],
  },
];

/** All pages: the stations in their order, then the other screens. */
export const HELP_PAGES: readonly HelpPage[] = [
  ...STATIONS.map(({ id, word }) => ({ id, word, ...STATION_PAGES[id] })),
  ...OTHERS,
];

/** The page of a screen. */
export const helpPage = (id: HelpPage['id']): HelpPage =>
  HELP_PAGES.find((page) => page.id === id) ?? (HELP_PAGES[0] as HelpPage);

const allOf = ({ word, about, points, captions, keys }: HelpPage): string =>
  [word, about, ...points.flatMap((p) => [p.head, p.words]), ...captions, ...keys.flat()].join(' ').toLowerCase();

/** The pages that have all of some words, those that are called so or have a paragraph of that name first. */
export function pagesFor(sought: string): readonly HelpPage[] {
  const words = sought.toLowerCase().split(/\s+/).filter(Boolean);
  if (words.length === 0) return HELP_PAGES;
  const found = HELP_PAGES.filter((page) => words.every((word) => allOf(page).includes(word)));
  const heads = ({ word, points }: HelpPage): string => [word, ...points.map((p) => p.head)].join(' ').toLowerCase();
  const isHead = (page: HelpPage): boolean => words.every((word) => heads(page).includes(word));
  return [...found.filter(isHead), ...found.filter((page) => !isHead(page))];
}
