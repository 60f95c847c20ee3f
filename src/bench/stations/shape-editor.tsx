/** What a shape measures, and what else makes it. */
import { memberOf } from '@/core/commands/changed';
import { shapeWord } from '@/core/document/part-words';
import type { Shape, ShapeKind } from '@/core/document/schema';
import { LIMITS } from '@/core/limits';
import { Choice, NumberField, QuantityField } from '@/ui/fields';
import { Heading } from '@/ui/heading';

import { change, useBench } from '../store';

type Field = {
  readonly key: string;
  readonly word: string;
  readonly kind: 'length' | 'count' | 'share';
  readonly least: number;
  readonly most: number;
};

const lengthField = (key: string, word: string, least = 0.1): Field => ({
  key,
  word,
  kind: 'length',
  least,
  most: LIMITS.sheetMostMm,
});
const count = (key: string, word: string): Field => ({ key, word, kind: 'count', least: 3, most: LIMITS.shapeCorners });

const FIELDS: Readonly<Record<ShapeKind, readonly Field[]>> = {
  rectangle: [
    lengthField('width', 'Width'),
    lengthField('height', 'Height'),
    lengthField('corner', 'Corner radius', 0),
  ],
  ellipse: [lengthField('width', 'Width'), lengthField('height', 'Height')],
  polygon: [lengthField('width', 'Across corners'), count('sides', 'Sides')],
  star: [
    lengthField('width', 'Across points'),
    count('points', 'Points'),
    { key: 'inner', word: 'Inner circle', kind: 'share', least: 0.02, most: 0.98 },
  ],
  heart: [lengthField('width', 'Width'), lengthField('height', 'Height')],
  bar: [lengthField('width', 'Length'), lengthField('height', 'Thickness')],
  spike: [lengthField('width', 'Width'), lengthField('height', 'Length'), lengthField('point', 'Point')],
};

/** The panel of a shape. */
export function ShapeEditor({ partId, member }: { partId: string; member: Shape }) {
  const unit = useBench((s) => s.job.units);
  const edit = (key: string, value: number | string) =>
    change((job) => {
      const draft = memberOf(job, partId, member.id);
      if (draft && draft.kind === member.kind) (draft as unknown as Record<string, number | string>)[key] = value;
    }, `${key}:${member.id}`);
  const values = member as unknown as Readonly<Record<string, number>>;
  return (
    <>
      <Heading>{shapeWord(member.kind)}</Heading>
      {FIELDS[member.kind].map(({ key, word, kind, least, most }) => {
        const shared = { label: word, value: values[key] as number, least, most };
        if (kind === 'length')
          return <QuantityField key={key} {...shared} unit={unit} onChange={(mm) => edit(key, mm)} />;
        return kind === 'count' ? (
          <NumberField key={key} {...shared} suffix="" digits={0} step={1} onChange={(n) => edit(key, Math.round(n))} />
        ) : (
          <NumberField key={key} {...shared} suffix="%" scale={100} step={1} onChange={(n) => edit(key, n)} />
        );
      })}
      {member.kind === 'bar' && (
        <Choice
          label="Ends"
          value={member.ends}
          options={[
            { value: 'square', word: 'square' },
            { value: 'round', word: 'round' },
          ]}
          onChange={(ends) => edit('ends', ends)}
        />
      )}
    </>
  );
}
