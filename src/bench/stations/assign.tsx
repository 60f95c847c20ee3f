import { ScanEye, Trash2 } from 'lucide-react';
import { Fragment } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { moveEntry } from '@/core/commands/changed';
import { addOperation, RUNNING_ORDER } from '@/core/commands/operations';
import { writeWithPen } from '@/core/commands/pens';
import { colourOf } from '@/core/document/colour-of';
import { pensOf } from '@/core/document/pens';
import type { Job, Operation, OperationKind } from '@/core/document/schema';
import { LIMITS } from '@/core/limits';
import { keepable } from '@/core/units/text';
import { NumberField, QuantityField } from '@/ui/fields';
import { formatArea, formatRun } from '@/ui/figures';
import { Heading } from '@/ui/heading';
import { ColourField, KindColours } from '@/ui/kind-colours';
import { OperationMark } from '@/ui/marks';
import { SortableList, useSortableRow } from '@/ui/sortable';
import styles from '../bench.module.css';
import { useBeside } from '../beside';
import { change, dispatch, showOnly, useBench } from '../store';
import { ChartAnew } from './chart-anew';
import { CutPlaces } from './cut-places';
import { GivenTo } from './given-to';
import { LettersAlone } from './letters-alone';
import { OperationSettings } from './operation-settings';
import { OrderAndTime } from './time/order-and-time';

function OperationCard({ operation, job }: { operation: Operation; job: Job }) {
  const only = useBench((s) => s.only);
  const figures = useBeside((view) => view?.operations.find((o) => o.id === operation.id));
  const row = useSortableRow(operation.id, operation.name);
  const used = job.parts.some((p) => !p.reference && p.work.some((w) => w.operation === operation.id));
  const edit = (recipe: (o: Operation) => void, merge: string | null = null) =>
    change((draft) => {
      const o = draft.operations.find((x) => x.id === operation.id);
      if (o) recipe(o);
    }, merge && `${merge}:${operation.id}`);
  return (
    <li ref={row.ref} className={styles.operation} data-off={!operation.on} style={row.style}>
      <div className={styles.operationHead}>
        {row.grip}
        <OperationMark kind={operation.kind} />
        <input
          type="text"
          aria-label="Name of the operation"
          value={operation.name}
          maxLength={LIMITS.nameCharacters}
          onChange={(e) => {
            const name = keepable(e.target.value);
            if (name)
              edit((o) => {
                o.name = name;
              }, 'operation-name');
          }}
        />
        <button
          type="button"
          className={styles.iconButton}
          aria-pressed={only === operation.id}
          aria-label={`Look at ${operation.name} alone`}
          title="Look at it alone"
          onClick={() => showOnly(only === operation.id ? null : operation.id)}
        >
          <ScanEye size={16} />
        </button>
        <Form.Check
          type="switch"
          aria-label={`${operation.name} is on`}
          title={operation.on ? 'On: exported' : 'Off: not exported'}
          checked={operation.on}
          onChange={(e) =>
            edit((o) => {
              o.on = e.target.checked;
            })
          }
        />
      </div>
      <div className="d-flex align-items-center gap-2 mt-1">
        <Form.Select
          size="sm"
          aria-label={`Kind of ${operation.name}`}
          value={operation.kind}
          style={{ width: 104 }}
          onChange={(e) =>
            edit((o) => {
              o.kind = e.target.value as OperationKind;
            })
          }
        >
          {RUNNING_ORDER.map((kind) => (
            <option key={kind} value={kind}>
              {kind}
            </option>
          ))}
        </Form.Select>
        <ColourField
          aria-label={`Colour of ${operation.name} in files`}
          title={operation.colour ? 'Colour in files, its own' : 'Colour in files, from the colour key'}
          value={colourOf(operation, job)}
          onChange={(colour) =>
            edit((o) => {
              o.colour = colour;
            }, 'operation-colour')
          }
        />
        <span className="nf-muted nf-small ms-auto text-end">
          {figures && (figures.paths > 0 || figures.fillMm2 > 0)
            ? [
                figures.paths > 0
                  ? `${figures.paths} path${figures.paths === 1 ? '' : 's'}, ${formatRun(figures.lengthMm, job.units)}`
                  : '',
                figures.fillMm2 > 0 ? formatArea(figures.fillMm2, job.units) : '',
              ]
                .filter(Boolean)
                .join(' · ')
            : 'nothing yet'}
        </span>
        {!used && (
          <button
            type="button"
            className={styles.iconButton}
            aria-label={`Remove ${operation.name}`}
            title="Remove"
            onClick={() =>
              change((draft) => {
                draft.operations = draft.operations.filter((o) => o.id !== operation.id);
              })
            }
          >
            <Trash2 size={15} />
          </button>
        )}
      </div>
      {operation.kind === 'mark' && (
        <div className="mt-1">
          <QuantityField
            label="Width of the tip"
            unit={job.units}
            value={operation.tip ?? 0}
            least={0}
            most={1000}
            digits={job.units === 'mm' ? 2 : 3}
            stepMm={0.1}
            onChange={(tip) =>
              edit((o) => {
                o.tip = tip > 0 ? tip : null;
              }, 'operation-tip')
            }
          />
        </div>
      )}
      <OperationSettings operation={operation} job={job} />
      {operation.colour && (
        <Button
          variant="word"
          onClick={() =>
            edit((o) => {
              o.colour = null;
            })
          }
        >
          Follow the colour key
        </Button>
      )}
    </li>
  );
}

const ColourKey = ({ job }: { job: Job }) => (
  <>
    <Heading beside="what your machine reads">Colour key</Heading>
    <KindColours
      colours={job.colourKey}
      onChange={(kind, colour) =>
        change((draft) => {
          draft.colourKey[kind] = colour;
        }, `key:${kind}`)
      }
    />
  </>
);

function PenKey({ operations }: { operations: readonly Operation[] }) {
  const pens = pensOf(operations);
  return (
    <>
      <Heading beside="in plotter files">Pen key</Heading>
      {operations.map(({ id, name, pens: own }) => (
        <Fragment key={id}>
          <NumberField
            label={name}
            prefix="pen"
            suffix=""
            step={1}
            digits={0}
            value={pens.get(id) ?? 1}
            least={1}
            most={LIMITS.pens}
            onChange={(pen) => dispatch((job) => writeWithPen(job, id, Math.round(pen)), `pen:${id}`)}
          />
          {own.length > 1 && <p className="nf-muted nf-small mb-1">also read from pen {own.slice(1).join(', ')}</p>}
        </Fragment>
      ))}
    </>
  );
}

/** Operations in running order, and which part goes to which. */
export function Assign() {
  const job = useBench((s) => s.job);
  const reorder = (from: number, to: number) =>
    change((draft) => {
      moveEntry(draft.operations, from, to);
    });
  return (
    <>
      <Heading beside="in running order">Operations</Heading>
      <ChartAnew />
      <SortableList name="operations" ids={job.operations.map((o) => o.id)} onMove={reorder}>
        <ul className="list-unstyled m-0">
          {job.operations.map((operation) => (
            <OperationCard key={operation.id} operation={operation} job={job} />
          ))}
        </ul>
      </SortableList>
      <fieldset className={styles.adders} aria-label="Add an operation">
        {RUNNING_ORDER.map((kind) => (
          <Button
            key={kind}
            variant="plain"
            title={`Add another ${kind}, at the place of its kind and in a colour of its own`}
            disabled={job.operations.length >= LIMITS.operations}
            onClick={() => dispatch((now) => addOperation(now, kind))}
          >
            + {kind}
          </Button>
        ))}
      </fieldset>
      <OrderAndTime job={job} />
      <GivenTo job={job} />
      <LettersAlone job={job} />
      <CutPlaces job={job} />
      <ColourKey job={job} />
      <PenKey operations={job.operations} />
    </>
  );
}
