import Modal from 'react-bootstrap/Modal';
import Table from 'react-bootstrap/Table';
import { STATIONS } from '@/core/inspect/stations';

const KEYS: readonly (readonly [string, string])[] = [
  [`1 to ${STATIONS.length}`, 'go to a station'],
  ['F', 'fit the sheet in sight; with Shift what is selected'],
  ['Space and drag', 'move the view; the middle button does it too'],
  ['+ and −', 'zoom'],
  ['Arrows', 'nudge by 1 mm or 1/16 in; with Shift ten times, with Alt a tenth'],
  [
    'Shift or Ctrl and press',
    'add a part, or a letter, to what is selected; a band drawn over empty sheet selects what it touches',
  ],
  ['Alt while dragging', 'without snapping'],
  ['Shift while dragging a bridge', 'it keeps its direction; arrows nudge the one that is chosen'],
  ['Tab', 'next part (when the sheet has the focus); with Shift the one before'],
  [
    'Enter',
    'a step inside: from a part to what it is made of, then to letters or nodes; while drawing a path, end it open',
  ],
  ['Esc', 'a step out'],
  ['T', 'type the words'],
  ['Delete', 'remove what is selected: a part, a bridge, nodes, a dot of a row'],
  ['Ctrl or Cmd Z', 'undo; with Shift redo'],
  ['V', 'while held: the sheet as cut (at station Fill: as filled), or back to the drawing'],
  ['D', 'duplicate'],
  ['Ctrl or Cmd C, X, V', 'copy, cut and paste, into another job too; words and drawings from elsewhere'],
  ['Ctrl or Cmd A', 'select all parts'],
  ['E', 'export'],
  ['?', 'this list'],
];

/** The list of keys. */
export function KeysDialog({ shown, onClose }: { shown: boolean; onClose: () => void }) {
  return (
    <Modal show={shown} animation={false} onHide={onClose} aria-labelledby="keys-title">
      <Modal.Header closeButton>
        <Modal.Title id="keys-title" as="h2" className="fs-5">
          Keys
        </Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <Table size="sm" borderless className="m-0">
          <tbody>
            {KEYS.map(([key, what]) => (
              <tr key={key}>
                <th scope="row" className="nf-figure text-nowrap pe-3">
                  {key}
                </th>
                <td>{what}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      </Modal.Body>
    </Modal>
  );
}
