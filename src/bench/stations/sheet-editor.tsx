/** The stock: its size, material and thickness, how it is cut, and what is safe in it. */
import { useQuery } from '@tanstack/react-query';
import { useEffect, useId, useRef } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { call } from '@/api/call';
import { API } from '@/api/endpoints';
import { setStockFrom } from '@/core/commands/shop';
import { followsMaterial, type Stock, saidOf, setOfStock } from '@/core/commands/stock';
import { withTag } from '@/core/commands/tags';
import type { Sheet } from '@/core/document/schema';
import { LIMITS } from '@/core/limits';
import { PROCESSES, type Process } from '@/core/schema/sheet';
import type { Material } from '@/core/schema/shop/material';
import { formatLength, formatLengthNumber, type LengthUnit } from '@/core/units/quantity';
import { QuantityField, Row } from '@/ui/fields';
import { Heading } from '@/ui/heading';
import { JOBS } from '@/ui/questions';
import { StockFields } from '@/ui/stock-fields';
import { TagsField } from '@/ui/tags-field';
import { useMaterials, useShop } from '@/ui/use-shop';
import { change, dispatch, useBench } from '../store';
import { Followed, MachineSelect, useFollowed } from './machine-fields';
import { SheetsEditor } from './sheets-editor';

/** The panel of the stock. */
export function SheetEditor() {
  const sheet = useBench((s) => s.job.sheet);
  const unit = useBench((s) => s.job.units);
  const machine = useBench((s) => s.job.machine);
  const materials = useMaterials();
  const id = useId();
  const set = (values: Partial<Sheet>, merge: string) =>
    change((job) => {
      Object.assign(job.sheet, values);
    }, `sheet:${merge}`);
  const shop = useShop();
  const { before, following, seen } = useFollowed();
  const stock = (values: Stock, merge: string) =>
    following(() => dispatch((job) => setStockFrom(job, values, shop), `sheet:${merge}`));
  // A name typed before the list has arrived is looked up when it has.
  const typed = useRef<string | null>(null);
  useEffect(() => {
    if (materials.length > 0 && typed.current !== null) setMaterial(typed.current);
  });
  const setMaterial = (material: string) => {
    typed.current = materials.length === 0 ? material : null;
    stock({ material }, 'material');
  };
  const usual = saidOf(sheet, materials).material?.process;
  return (
    <>
      <Heading>Sheet</Heading>
      <SheetsEditor />
      <QuantityField
        label="Width"
        unit={unit}
        value={sheet.width}
        least={LIMITS.sheetLeastMm}
        most={LIMITS.sheetMostMm}
        stepMm={unit === 'mm' ? 10 : 25.4}
        onChange={(width) => set({ width, offCut: null }, 'width')}
      />
      <QuantityField
        label="Height"
        unit={unit}
        value={sheet.height}
        least={LIMITS.sheetLeastMm}
        most={LIMITS.sheetMostMm}
        stepMm={unit === 'mm' ? 10 : 25.4}
        onChange={(height) => set({ height, offCut: null }, 'height')}
      />
      <MachineSelect id={`${id}-machine`} onChange={following} />
      <StockFields
        material={sheet.material}
        thickness={sheet.thickness}
        unit={unit}
        materials={materials}
        onMaterial={setMaterial}
        onThickness={(thickness, thicknessAs) => stock({ thickness, thicknessAs }, 'thickness')}
      />
      <InStock
        material={saidOf(sheet, materials).material}
        unit={unit}
        onChoose={(thickness) => stock({ thickness, thicknessAs: null }, 'thickness')}
      />
      <SheetsInStock
        material={saidOf(sheet, materials).material}
        unit={unit}
        onChoose={({ width, height, offCut }) => set({ width, height, offCut }, 'size')}
      />
      <Followed before={before} onSeen={seen} />
      {machine === null && (
        <Row label="Cut by" htmlFor={id}>
          <Form.Select
            id={id}
            size="sm"
            value={sheet.process ?? ''}
            onChange={(e) => stock({ process: (e.target.value || null) as Process | null }, 'process')}
          >
            <option value="">{usual ? `as usual: ${usual}` : 'as usual'}</option>
            {PROCESSES.map((process) => (
              <option key={process} value={process}>
                {process}
              </option>
            ))}
          </Form.Select>
        </Row>
      )}
      <StockWidth which="leastWidth" label="Least safe width" most={1000} stepMm={unit === 'mm' ? 0.1 : 25.4 / 64} />
      <StockWidth which="kerf" label="Kerf" most={100} stepMm={unit === 'mm' ? 0.05 : 25.4 / 256} />
      <Tags />
    </>
  );
}

/** Thicknesses of the material that are in stock, to be pressed. */
function InStock({
  material,
  unit,
  onChoose,
}: {
  material: Material | null;
  unit: LengthUnit;
  onChoose: (mm: number) => void;
}) {
  if (!material || material.thicknesses.length === 0) return null;
  return (
    <p className="nf-small mb-2">
      <span className="nf-muted">in stock: </span>
      {material.thicknesses.map(({ mm, as }) => (
        <Button key={mm} variant="word" className="me-2" onClick={() => onChoose(mm)}>
          {as || formatLength(mm, unit, 2)}
        </Button>
      ))}
    </p>
  );
}

/** Sheets and off-cuts of the material that are in stock, to be pressed. */
function SheetsInStock({
  material,
  unit,
  onChoose,
}: {
  material: Material | null;
  unit: LengthUnit;
  onChoose: (sheet: Material['sheets'][number]) => void;
}) {
  if (!material || material.sheets.length === 0) return null;
  return (
    <p className="nf-small mb-2">
      <span className="nf-muted">sheets: </span>
      {material.sheets.map((sheet, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: two off-cuts may be of one size
        <Button key={i} variant="word" className="me-2" onClick={() => onChoose(sheet)}>
          {formatLengthNumber(sheet.width, unit)} × {formatLengthNumber(sheet.height, unit)}
          {sheet.offCut && ' off-cut'}
        </Button>
      ))}
    </p>
  );
}

/** What the job is found by. */
function Tags() {
  const tags = useBench((s) => s.job.tags);
  const { data } = useQuery({
    queryKey: [...JOBS, 'tags'],
    queryFn: ({ signal }) => call(API.listJobs, { words: '', tag: '', after: '' }, null, signal),
  });
  const set = (tag: string, on: boolean) =>
    change((job) => {
      const next = withTag(job.tags, tag, on);
      if (next !== job.tags) job.tags = [...next];
    });
  return (
    <>
      <Heading beside="to find the job by">Tags</Heading>
      <TagsField
        label="Add a tag to this job"
        tags={tags}
        known={data?.tags ?? []}
        onAdd={(tag) => set(tag, true)}
        onRemove={(tag) => set(tag, false)}
      />
    </>
  );
}

/** A width that comes with the material, or is typed, and where it is from. */
function StockWidth({
  which,
  label,
  most,
  stepMm,
}: {
  which: 'leastWidth' | 'kerf';
  label: string;
  most: number;
  stepMm: number;
}) {
  const sheet = useBench((s) => s.job.sheet);
  const unit = useBench((s) => s.job.units);
  const materials = useMaterials();
  const said = saidOf(sheet, materials);
  const follows = followsMaterial(sheet, which, materials);
  const by =
    which === 'kerf'
      ? (sheet.process ?? said.material?.process)
      : sheet.thickness && formatLength(sheet.thickness, unit);
  const source = said.material && [said.material.name, by].filter(Boolean).join(', ');
  const merge = `sheet:${which}`;
  return (
    <>
      <QuantityField
        label={label}
        unit={unit}
        value={sheet[which] ?? 0}
        least={0}
        most={most}
        stepMm={stepMm}
        onChange={(mm) => dispatch((job) => setOfStock(job, which, mm, materials), merge)}
      />
      <p className="nf-muted nf-small mb-2">
        {follows ? (
          source && sheet[which] !== null ? (
            `from ${source}`
          ) : (
            'not known for this material'
          )
        ) : (
          <>
            typed
            {source && said[which] !== null && (
              <>
                {'; '}
                <Button
                  variant="word"
                  onClick={() => dispatch((job) => setOfStock(job, which, null, materials), merge)}
                >
                  {formatLength(said[which], unit)} from {source}
                </Button>
              </>
            )}
          </>
        )}
      </p>
    </>
  );
}
