/** The stock: its size, material and thickness, and what is safe in it. */
import { useEffect, useRef } from 'react';
import { leastWidthOf, materialNamed } from '@/core/document/material';
import type { Sheet } from '@/core/document/schema';
import { LIMITS } from '@/core/limits';
import { QuantityField } from '@/ui/fields';
import { Heading } from '@/ui/heading';
import { StockFields, useMaterials } from '@/ui/stock-fields';
import { change, useBench } from '../store';

/** The panel of the stock. */
export function SheetEditor() {
  const sheet = useBench((s) => s.job.sheet);
  const unit = useBench((s) => s.job.units);
  const materials = useMaterials();
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
  const setThickness = (thickness: number | null) => {
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
      <StockFields
        material={sheet.material}
        thickness={sheet.thickness}
        unit={unit}
        materials={materials}
        onMaterial={setMaterial}
        onThickness={setThickness}
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
