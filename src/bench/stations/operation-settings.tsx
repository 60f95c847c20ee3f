/** How the machine does an operation: in one line, and opened each setting with where it comes from and the way back. */
import { useId, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { setTabs } from '@/core/commands/cut-places';
import { setKerfSide, setLead } from '@/core/commands/operations';
import { typeSetting, typeTool } from '@/core/commands/shop';
import type { Job, Operation } from '@/core/document/schema';
import { LIMITS } from '@/core/limits';
import { GASES, type SettingName, type Settings } from '@/core/schema/shop/settings';
import { doneBy } from '@/core/shop/can';
import { settingsOn, sourceOf } from '@/core/shop/in-force';
import { formatSetting, SETTING_WORDS, settingInLine, settingsUsed, speedScale, speedUnit } from '@/core/shop/words';
import { Choice, NumberField, QuantityField, Row } from '@/ui/fields';
import { useShop } from '@/ui/use-shop';
import { dispatch, setPointing, useBench } from '../store';

/** Where the settings of an operation come from, in words. */
function fromWords({ kind, settings: { charted, from, tried } }: Operation, job: Job): string {
  if (job.machine === null) return 'no machine given';
  if (!doneBy(job.machine.kind).includes(kind)) return `${job.machine.name} can’t do this`;
  if (charted === null) return 'nothing in the cut chart';
  if (from === 'between') return 'reckoned between two rows of the chart, not tried';
  return tried ? 'from the cut chart, tried' : 'from the cut chart, not tried';
}

/** What is set, in one line. */
const summary = (operation: Operation, job: Job): string => {
  const now = settingsOn(operation, job.sheet);
  return settingsUsed(job.machine?.kind ?? null, operation.kind)
    .filter((which) => sourceOf(operation, job.sheet, which) !== null)
    .map((which) => settingInLine(which, now[which], job.units))
    .join(' · ');
};

type FieldProps = { readonly operation: Operation; readonly job: Job; readonly which: SettingName };

/** The field of one setting. */
function SettingField({ operation, job, which }: FieldProps) {
  const id = useId();
  const shop = useShop();
  const setTool = (name: string) =>
    dispatch((doc) => typeTool(doc, operation.id, name, shop), `setting:${operation.id}:tool`);
  const now = settingsOn(operation, job.sheet);
  const unit = job.units;
  const set = <N extends SettingName>(name: N, value: Settings[N]) =>
    dispatch((doc) => typeSetting(doc, operation.id, name, value), `setting:${operation.id}:${name}`);
  const label = SETTING_WORDS[which];
  switch (which) {
    case 'gas':
      return (
        <Row label={label} htmlFor={id}>
          <Form.Select
            id={id}
            size="sm"
            value={now.gas ?? ''}
            onChange={(e) => set('gas', (e.target.value || null) as Settings['gas'])}
          >
            <option value="">not given</option>
            {GASES.map((gas) => (
              <option key={gas}>{gas}</option>
            ))}
          </Form.Select>
        </Row>
      );
    case 'tool': {
      const names = [...new Set([...shop.tools.map((t) => t.entry.name), ...(now.tool ? [now.tool] : [])])];
      return (
        <Row label={label} htmlFor={id}>
          <Form.Select id={id} size="sm" value={now.tool} onChange={(e) => setTool(e.target.value)}>
            <option value="">none</option>
            {names.map((name) => (
              <option key={name}>{name}</option>
            ))}
          </Form.Select>
        </Row>
      );
    }
    case 'speed':
      return (
        <NumberField
          label={label}
          suffix={speedUnit(unit)}
          scale={speedScale(unit)}
          step={unit === 'mm' ? 1 : 5}
          value={now.speed ?? 0}
          least={0}
          most={LIMITS.speedMostMmS}
          onChange={(speed) => set('speed', speed >= LIMITS.speedLeastMmS ? speed : null)}
        />
      );
    case 'power':
      return (
        <NumberField
          label={label}
          suffix="%"
          step={1}
          value={now.power ?? 0}
          least={0}
          most={100}
          onChange={(power) => set('power', power || null)}
        />
      );
    case 'current':
      return (
        <NumberField
          label={label}
          suffix="A"
          step={1}
          value={now.current ?? 0}
          least={0}
          most={2000}
          onChange={(current) => set('current', current || null)}
        />
      );
    case 'passes':
      return (
        <NumberField
          label={label}
          suffix=""
          step={1}
          digits={0}
          value={now.passes}
          least={1}
          most={LIMITS.passes}
          onChange={(passes) => set('passes', Math.round(passes))}
        />
      );
    default:
      return (
        <QuantityField
          label={label}
          unit={unit}
          value={now[which] ?? 0}
          least={0}
          most={which === 'kerf' || which === 'rowDistance' ? 100 : 1000}
          digits={unit === 'mm' ? 2 : 3}
          stepMm={unit === 'mm' ? 0.1 : 25.4 / 256}
          onChange={(mm) => set(which, mm > 0 ? mm : null)}
        />
      );
  }
}

/** A setting, and below it that it was typed, with the way back. */
function Setting({ operation, job, which }: FieldProps) {
  const source = sourceOf(operation, job.sheet, which);
  const shop = useShop();
  const letGo = (doc: Job) =>
    which === 'tool' ? typeTool(doc, operation.id, undefined, shop) : typeSetting(doc, operation.id, which, undefined);
  const { charted } = operation.settings;
  return (
    <>
      <SettingField operation={operation} job={job} which={which} />
      {source === 'stock' && <p className="nf-muted nf-small mb-2">that of the stock</p>}
      {source === 'typed' && (
        <p className="nf-muted nf-small mb-2">
          typed;{' '}
          <Button variant="word" onClick={() => dispatch(letGo)}>
            {charted ? `${formatSetting(which, charted[which], job.units)} from the chart` : 'not given'}
          </Button>
        </p>
      )}
    </>
  );
}

/** Whether a cut runs beside what is kept. */
function KerfSide({ operation }: { operation: Operation }) {
  return (
    <Choice
      label="Kerf side"
      value={operation.kerfSide}
      options={[
        { value: 'line', word: 'none', title: 'On the outlines: what is kept comes out smaller by the kerf' },
        {
          value: 'beside',
          word: 'beside',
          title: 'Half a kerf outside of edges and inside of holes: sizes come out true',
        },
        {
          value: 'machine',
          word: 'by layer',
          title: 'The machine keeps beside the outlines; layers say on which side',
        },
      ]}
      onChange={(kerfSide) => dispatch((job) => setKerfSide(job, operation.id, kerfSide))}
    />
  );
}

/** How a cut begins in scrap, and ends. */
function Lead({ operation, job }: { operation: Operation; job: Job }) {
  const { lead } = operation;
  const unit = job.units;
  const set = (values: Partial<NonNullable<Operation['lead']>>, merge: string) =>
    dispatch((doc) => setLead(doc, operation.id, values), `lead:${operation.id}:${merge}`);
  const step = unit === 'mm' ? 0.5 : 25.4 / 32;
  return (
    <>
      <Choice
        label="Lead-in"
        value={lead === null ? 'on' : lead.shape}
        options={[
          { value: 'on', word: 'none', title: 'The cut begins on the outline itself' },
          { value: 'line', word: 'line', title: 'In scrap, and runs in by a straight line' },
          { value: 'arc', word: 'arc', title: 'In scrap, and runs in by an arc that touches the outline' },
        ]}
        onChange={(shape) =>
          shape === 'on' ? dispatch((doc) => setLead(doc, operation.id, null)) : set({ shape }, 'shape')
        }
      />
      {lead && (
        <>
          <QuantityField
            label="Length in"
            unit={unit}
            value={lead.in ?? 0}
            least={0}
            most={LIMITS.leadMm}
            stepMm={step}
            onChange={(mm) => set({ in: mm >= 0.1 ? mm : null }, 'in')}
          />
          {lead.in === null && <p className="nf-muted nf-small mb-2">0: as long as the thickness asks</p>}
          <QuantityField
            label="Length out"
            unit={unit}
            value={lead.out}
            least={0}
            most={LIMITS.leadMm}
            stepMm={step}
            onChange={(out) => set({ out }, 'out')}
          />
          <QuantityField
            label="Overrun"
            unit={unit}
            value={lead.over}
            least={-LIMITS.leadMm}
            most={LIMITS.leadMm}
            stepMm={step}
            onChange={(over) => set({ over }, 'over')}
          />
          <p className="nf-muted nf-small mb-2">how far it goes on beyond where it began; less than 0 stops before</p>
        </>
      )}
    </>
  );
}

/** Places that a cut leaves, so that pieces stay in their sheet. */
function Tabs({ operation, job }: { operation: Operation; job: Job }) {
  const { tabs } = operation;
  const pointing = useBench((s) => s.pointing === 'tab');
  const set = (values: Partial<NonNullable<Operation['tabs']>>, merge: string) =>
    dispatch((doc) => setTabs(doc, operation.id, values), `tabs:${operation.id}:${merge}`);
  return (
    <>
      <Choice
        label="Tabs"
        value={tabs === null ? 'no' : 'yes'}
        options={[
          { value: 'no', word: 'none', title: 'Pieces come free' },
          { value: 'yes', word: 'leave', title: 'Small places stay uncut, so that pieces stay in their sheet' },
        ]}
        onChange={(on) => (on === 'yes' ? set({}, 'on') : dispatch((doc) => setTabs(doc, operation.id, null)))}
      />
      {tabs && (
        <>
          <QuantityField
            label="Tab width"
            unit={job.units}
            value={tabs.width}
            least={0.05}
            most={LIMITS.tabMm}
            digits={job.units === 'mm' ? 2 : 3}
            stepMm={job.units === 'mm' ? 0.1 : 25.4 / 64}
            onChange={(width) => set({ width }, 'width')}
          />
          <NumberField
            label="Tabs each"
            suffix=""
            step={1}
            digits={0}
            value={tabs.count ?? 0}
            least={0}
            most={LIMITS.tabsOfOutline}
            onChange={(count) => set({ count: count >= 1 ? Math.round(count) : null }, 'count')}
          />
          {tabs.count === null && <p className="nf-muted nf-small mb-2">0: as many as the size asks for</p>}
          <Form.Check
            id={`tabs-scrap-${operation.id}`}
            label="Hold what falls out of holes too"
            checked={tabs.scrap}
            onChange={(e) => set({ scrap: e.target.checked }, 'scrap')}
          />
          <Button
            variant="plain"
            className="my-2"
            active={pointing}
            aria-pressed={pointing}
            title="Then press on an outline"
            onClick={() => setPointing(pointing ? null : 'tab')}
          >
            {pointing ? 'Press on an outline …' : 'Add a tab by hand'}
          </Button>
        </>
      )}
    </>
  );
}

/** The settings of an operation. */
export function OperationSettings({ operation, job }: { operation: Operation; job: Job }) {
  const [open, setOpen] = useState(false);
  const id = useId();
  const set = summary(operation, job);
  return (
    <div className="mt-1">
      <Button
        variant="word"
        className="text-start"
        aria-expanded={open}
        aria-controls={id}
        aria-label={`Settings of ${operation.name}`}
        onClick={() => setOpen(!open)}
      >
        {set || 'Settings'}
      </Button>
      <div className="nf-muted nf-small">{fromWords(operation, job)}</div>
      <div id={id} hidden={!open} className="mt-1">
        {open && operation.kind === 'cut' && (
          <>
            <KerfSide operation={operation} />
            {operation.kerfSide !== 'machine' && (
              <>
                <Lead operation={operation} job={job} />
                <Tabs operation={operation} job={job} />
              </>
            )}
          </>
        )}
        {open &&
          settingsUsed(job.machine?.kind ?? null, operation.kind).map((which) => (
            <Setting key={which} operation={operation} job={job} which={which} />
          ))}
      </div>
    </div>
  );
}
