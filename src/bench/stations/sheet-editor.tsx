/** The stock: its size, material and thickness, and what is safe in it. */
import { useQuery } from '@tanstack/react-query';
import { useEffect, useId, useRef } from 'react';
import Form from 'react-bootstrap/Form';
import { call } from '@/api/call';
import { API } from '@/api/endpoints';
import { leastWidthOf, type Material, materialNamed } from '@/core/document/material';
import type { Sheet } from '@/core/document/schema';
import { LIMITS } from '@/core/limits';
import { keepable } from '@/core/units/text';
import { QuantityField, Row } from '@/ui/fields';
import { Heading } from '@/ui/heading';
import { change, useBench } from '../store';

const EVER = Number.POSITIVE_INFINITY;
const NONE: Material[] = [];

/** The panel of the stock. */
export function SheetEditor() {
  const sheet = useBench((s) => s.job.sheet);
  const unit = useBench((s) => s.job.units);
  const { data: materials = NONE } = useQuery({
    queryKey: ['materials'],
    queryFn: ({ signal }) => call(API.listMaterials, {}, null, signal),
    staleTime: EVER,
  });
  const id = useId();
  const set = (values: Partial<Sheet>, merge: string) =>
    change((job) => {
      Object.assign(job.sheet, values);
    }, `sheet:${merge}`);
  // A name typed before the list has arrived is looked up when it has.
  const typed = useRef<string | null>(null);
  useEffect(() => {
    if (materials.length > 0 && typed.current !== null) setMaterial(typed.current);
  });
  const setMaterial = (text: string) => {
    typed.current = materials.length === 0 ? text : null;
    const known = materialNamed(text, materials);
    set(
      known
        ? { material: text, leastWidth: leastWidthOf(known, sheet.thickness), kerf: known.kerfMm }
        : { material: text },
      'material',
    );
  };
  const setThickness = (mm: number) => {
    const thickness = mm === 0 ? null : mm;
    const known = materialNamed(sheet.material, materials);
    // A width typed by hand stays; one that came with the material goes with the thickness.
    const follows = known && sheet.leastWidth === leastWidthOf(known, sheet.thickness);
    set(follows ? { thickness, leastWidth: leastWidthOf(known, thickness) } : { thickness }, 'thickness');
  };
  return (
    <>
      <Heading>Sheet</Heading>
      <QuantityField
        label="Width"
        unit={unit}
        value={sheet.width}
        least={LIMITS.sheetLeastMm}
        most={LIMITS.sheetMostMm}
        stepMm={unit === 'mm' ? 10 : 25.4}
        onChange={(width) => set({ width }, 'width')}
      />
      <QuantityField
        label="Height"
        unit={unit}
        value={sheet.height}
        least={LIMITS.sheetLeastMm}
        most={LIMITS.sheetMostMm}
        stepMm={unit === 'mm' ? 10 : 25.4}
        onChange={(height) => set({ height }, 'height')}
      />
      <Row label="Material" htmlFor={id}>
        <Form.Control
          id={id}
          size="sm"
          list={`${id}-known`}
          value={sheet.material}
          maxLength={LIMITS.nameCharacters}
          placeholder="such as birch plywood"
          autoComplete="off"
          onChange={(e) => setMaterial(keepable(e.target.value))}
        />
        <datalist id={`${id}-known`}>
          {materials.map((m) => (
            <option key={m.name} value={m.name} />
          ))}
        </datalist>
      </Row>
      <QuantityField
        label="Thickness"
        unit={unit}
        value={sheet.thickness ?? 0}
        least={0}
        most={1000}
        stepMm={unit === 'mm' ? 0.5 : 25.4 / 16}
        onChange={setThickness}
      />
      <QuantityField
        label="Least safe width"
        unit={unit}
        value={sheet.leastWidth ?? 0}
        least={0}
        most={1000}
        stepMm={unit === 'mm' ? 0.1 : 25.4 / 64}
        onChange={(mm) => set({ leastWidth: mm === 0 ? null : mm }, 'least')}
      />
      <QuantityField
        label="Kerf"
        unit={unit}
        value={sheet.kerf ?? 0}
        least={0}
        most={100}
        stepMm={unit === 'mm' ? 0.05 : 25.4 / 256}
        onChange={(mm) => set({ kerf: mm === 0 ? null : mm }, 'kerf')}
      />
    </>
  );
}
