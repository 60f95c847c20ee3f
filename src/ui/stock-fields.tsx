/** What the stock is: its material, chosen from those that are known or typed, and its thickness. */
import { useId } from 'react';
import Form from 'react-bootstrap/Form';
import { LIMITS } from '@/core/limits';
import type { Material } from '@/core/schema/shop/material';
import { inchFraction, type LengthUnit } from '@/core/units/quantity';
import { keepable } from '@/core/units/text';
import { QuantityField, Row } from './fields';

/** Fields for material and thickness in mm; a thickness of 0 is none. */
export function StockFields({
  material,
  thickness,
  unit,
  materials,
  onMaterial,
  onThickness,
}: {
  material: string;
  thickness: number | null;
  unit: LengthUnit;
  materials: readonly Material[];
  onMaterial: (name: string) => void;
  /** `as` is the fraction of an inch it was typed as; null where it was not. */
  onThickness: (mm: number | null, as: string | null) => void;
}) {
  const id = useId();
  return (
    <>
      <Row label="Material" htmlFor={id}>
        <Form.Control
          id={id}
          size="sm"
          list={`${id}-known`}
          value={material}
          maxLength={LIMITS.nameCharacters}
          placeholder="such as birch plywood"
          autoComplete="off"
          onChange={(e) => onMaterial(keepable(e.target.value))}
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
        value={thickness ?? 0}
        least={0}
        most={1000}
        stepMm={unit === 'mm' ? 0.5 : 25.4 / 16}
        onChange={(mm, typed = '') => onThickness(mm === 0 ? null : mm, inchFraction(typed, unit))}
      />
    </>
  );
}
