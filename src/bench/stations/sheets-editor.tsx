/** More stock in the same job: what the sheet in hand is called, another one, and taking it out. */
import { useId } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { addSheet, nameSheet, putOnSheet, removeSheet, takeSheet } from '@/core/commands/sheets';
import { sheetsOf, sheetTitle } from '@/core/document/on-sheet';
import { LIMITS } from '@/core/limits';
import { keepable } from '@/core/units/text';
import { Row } from '@/ui/fields';
import { useShop } from '@/ui/use-shop';
import { fitSheet } from '../sheet/camera';
import { dispatch, selectedParts, useBench } from '../store';

/** Name of the sheet in hand where there are several, and one more. */
export function SheetsEditor() {
  const job = useBench((s) => s.job);
  const id = useId();
  const sheets = sheetsOf(job);
  const at = sheets.findIndex((s) => s.isInHand);
  const own = sheets[at];
  return (
    <>
      {sheets.length > 1 && own && (
        <Row label="Called" htmlFor={id}>
          <Form.Control
            id={id}
            size="sm"
            maxLength={LIMITS.nameCharacters}
            placeholder={sheetTitle({ ...own, name: '' }, at + 1, job.units)}
            value={job.sheetName}
            onChange={(e) => dispatch((doc) => nameSheet(doc, keepable(e.target.value)), 'sheet-name')}
          />
        </Row>
      )}
      <div className="d-flex gap-2 mb-2">
        <Button
          variant="plain"
          title="Other stock in the same job, with parts, settings and files of its own"
          disabled={sheets.length >= LIMITS.sheets}
          onClick={() => {
            dispatch((doc) => addSheet(doc).job);
            fitSheet();
          }}
        >
          Another sheet
        </Button>
        {sheets.length > 1 && (
          <Button
            variant="plain"
            title="Its parts come on the sheet before it"
            onClick={() => {
              dispatch(removeSheet);
              fitSheet();
            }}
          >
            Take this one out
          </Button>
        )}
      </div>
    </>
  );
}

/** Which sheet the parts that are chosen are on; nothing where there is one sheet. */
export function OnSheet() {
  const job = useBench((s) => s.job);
  const selection = useBench((s) => s.selection);
  const shop = useShop();
  const id = useId();
  const sheets = sheetsOf(job);
  if (sheets.length === 1 || selection.memberId !== null) return null;
  return (
    <Row label="On sheet" htmlFor={id}>
      <Form.Select
        id={id}
        size="sm"
        value={job.sheetId}
        onChange={(e) => {
          const to = e.target.value;
          dispatch((doc) => takeSheet(putOnSheet(doc, selectedParts(selection), to), to, shop));
        }}
      >
        {sheets.map((sheet, i) => (
          <option key={sheet.id} value={sheet.id}>
            {sheetTitle(sheet, i + 1, job.units)}
          </option>
        ))}
      </Form.Select>
    </Row>
  );
}
