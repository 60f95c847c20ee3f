/** What files are called: what their names are made of, in what order, and the name as it will be. */
import Form from 'react-bootstrap/Form';
import { moveEntry } from '@/core/commands/changed';
import type { ExportSettings, Job } from '@/core/document/schema';
import type { ExportScope } from '@/core/job/export';
import { fileName, nameWords } from '@/core/job/file-names';
import { LIMITS } from '@/core/limits';
import { NAME_FIELDS, type NameField } from '@/core/schema/operations';
import { keepable } from '@/core/units/text';
import { Heading } from '@/ui/heading';
import { SortableList, useSortableRow } from '@/ui/sortable';
import styles from '../bench.module.css';

const WORDS: Readonly<Record<NameField, { readonly word: string; readonly without: string }>> = {
  job: { word: 'Job', without: 'without a title' },
  piece: { word: 'Piece', without: 'when one part is written' },
  material: { word: 'Material', without: 'not said' },
  thickness: { word: 'Thickness', without: 'not said' },
  date: { word: 'Date', without: 'not said' },
  number: { word: 'Number', without: 'none' },
  row: { word: 'Name in the list', without: 'no list of names' },
};

type Edit = (recipe: (settings: ExportSettings) => void, merge?: string) => void;

function Field({ field, job, now, edit }: { field: NameField; job: Job; now: string; edit: Edit }) {
  const { word, without } = WORDS[field];
  const row = useSortableRow(field, word);
  const isIn = job.export.nameFields.includes(field);
  const setIn = (on: boolean) =>
    edit((settings) => {
      settings.nameFields = on
        ? [...settings.nameFields, field]
        : settings.nameFields.filter((other) => other !== field);
    });
  return (
    <li ref={row.ref} style={row.style} className={styles.nameField}>
      {row.grip}
      <Form.Check id={`name-field-${field}`} label={word} checked={isIn} onChange={(e) => setIn(e.target.checked)} />
      {field === 'number' ? (
        <Form.Control
          size="sm"
          aria-label="Number of the order or drawing"
          title="Number of the order or drawing"
          placeholder={without}
          maxLength={LIMITS.nameCharacters}
          autoComplete="off"
          value={job.export.number}
          onChange={(e) => {
            const number = keepable(e.target.value);
            edit((settings) => {
              // A number that is typed for the first time is meant to be in the name.
              if (settings.number === '' && number !== '' && !settings.nameFields.includes('number'))
                settings.nameFields.push('number');
              settings.number = number;
            }, 'file-number');
          }}
        />
      ) : (
        <span className="nf-muted nf-small text-truncate">{now || without}</span>
      )}
    </li>
  );
}

/** Which fields are in the names of files, to be put in order, and the name that comes of it. */
export function FileNames({ job, scope, edit }: { job: Job; scope: ExportScope; edit: Edit }) {
  const chosen = job.export.nameFields;
  const all = [...chosen, ...NAME_FIELDS.filter((field) => !chosen.includes(field))];
  const words = nameWords(job, scope);
  return (
    <>
      <Heading beside="drag to put in order">Names of files</Heading>
      <SortableList
        name="name-fields"
        ids={all}
        onMove={(from, to) =>
          edit((settings) => {
            const moved = [...all];
            moveEntry(moved, from, to);
            settings.nameFields = moved.filter((field) => settings.nameFields.includes(field));
          })
        }
      >
        <ul className={styles.nameFields}>
          {all.map((field) => (
            <Field key={field} field={field} job={job} now={words[field]} edit={edit} />
          ))}
        </ul>
      </SortableList>
      <p className="nf-small mb-0 text-break" aria-live="polite">
        <span className="nf-muted">For example</span> {fileName(job, 'svg', scope)}
      </p>
    </>
  );
}
