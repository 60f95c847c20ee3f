/** A sign of 1 m by 0.6 m, filled around its words by lines 0.1 mm apart: the largest filling that is asked of the app. */
import type { Draft } from './jobs';

export const SIGN: Draft = {
  format: 1,
  title: 'Sign of a metre',
  sheet: { width: 1000, height: 600 },
  parts: [
    {
      id: 'sign',
      members: [
        { id: 'plate', kind: 'rectangle', placement: { x: 500, y: 300 }, width: 1000, height: 600, corner: 20 },
        {
          id: 'words',
          kind: 'lettering',
          role: 'punch',
          placement: { x: 500, y: 470 },
          text: 'ALDER LANE\ncommunity garden\nopen every day\nfrom dawn to dusk',
          face: 'Pacifico',
          size: { by: 'capital', mm: 70 },
          align: 'centre',
        },
      ],
      steps: [
        { kind: 'weld', on: true },
        { kind: 'hatch', tool: { shape: 'line', tip: 0.1 }, overlap: 0, angle: 30, outline: 'last' },
      ],
      work: [{ what: 'hatch', operation: 'engrave' }],
    },
  ],
};
