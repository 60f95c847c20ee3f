/** What a job costs: the stock it uses, the time on the machine and pierces, where it is wanted. */
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { payFor, setMachinePrice } from '@/core/commands/price';
import { saidOf, setOfStock } from '@/core/commands/stock';
import type { Job } from '@/core/document/schema';
import type { Price } from '@/core/job/price';
import { LIMITS } from '@/core/limits';
import { formatPrice } from '@/core/units/price';
import type { LengthUnit } from '@/core/units/quantity';
import { Choice, NumberField } from '@/ui/fields';
import { areaScale, areaUnit, formatStock } from '@/ui/figures';
import { Heading } from '@/ui/heading';
import { useMaterials } from '@/ui/use-shop';
import { dispatch } from '../../store';
import styles from './time.module.css';

const MACHINE_PRICES = [
  { which: 'hourPrice', label: 'Machine', suffix: 'per hour', step: 1 },
  { which: 'piercePrice', label: 'A pierce', suffix: '', step: 0.1 },
] as const;

const orNone = (value: number): number | null => (value > 0 ? value : null);

/** What each costs; 0 where that is not reckoned. */
function Rates({ job }: { job: Job }) {
  const materials = useMaterials();
  const unit: LengthUnit = job.units;
  const { machine, sheet } = job;
  const said = saidOf(sheet, materials).price;
  return (
    <>
      <NumberField
        label="Stock"
        suffix={`per ${areaUnit(unit)}`}
        scale={areaScale(unit)}
        step={1}
        value={sheet.price ?? 0}
        least={0}
        most={LIMITS.price}
        onChange={(value) => dispatch((doc) => setOfStock(doc, 'price', value, materials), 'price:stock')}
      />
      {sheet.priceFrom === 'typed' && said !== null && said !== sheet.price && (
        <p className="nf-muted nf-small mb-2">
          typed;{' '}
          <Button variant="word" onClick={() => dispatch((doc) => setOfStock(doc, 'price', null, materials))}>
            {formatPrice(said * areaScale(unit))} from the material
          </Button>
        </p>
      )}
      <Choice
        label="Paid for"
        value={sheet.priced}
        options={[
          { value: 'used', word: 'what is used', title: 'The stock within the bounds of the work' },
          { value: 'whole', word: 'the sheet', title: 'The whole sheet' },
        ]}
        onChange={(priced) => dispatch((doc) => payFor(doc, priced))}
      />
      {machine &&
        MACHINE_PRICES.map(({ which, label, suffix, step }) => (
          <NumberField
            key={which}
            label={label}
            suffix={suffix}
            step={step}
            value={machine[which] ?? 0}
            least={0}
            most={LIMITS.price}
            onChange={(value) => dispatch((doc) => setMachinePrice(doc, which, orNone(value)), `price:${which}`)}
          />
        ))}
      <p className="nf-muted nf-small mb-1">0: it is not reckoned. The Shop keeps what they usually are.</p>
    </>
  );
}

/** The price of a job, where anything of it is said to cost something; else a word that begins it. */
export function PriceOfJob({ job, price }: { job: Job; price: Price | null }) {
  const [isOpen, setOpen] = useState(false);
  const edit = (
    <Button variant="word" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
      {price ? 'What it is reckoned by' : 'Reckon a price'}
    </Button>
  );
  return (
    <div className="nf-small mt-2">
      {price && (
        <>
          <Heading beside={formatPrice(price.total)}>Price</Heading>
          <dl className={styles.price} aria-label="Price">
            {price.stock !== null && (
              <>
                <dt>Stock, {formatStock(price.stockMm2, job.units)}</dt>
                <dd className="nf-figure">{formatPrice(price.stock)}</dd>
              </>
            )}
            {price.time !== null && (
              <>
                <dt>Time on the machine</dt>
                <dd className="nf-figure">{formatPrice(price.time)}</dd>
              </>
            )}
            {price.piercing !== null && (
              <>
                <dt>
                  {price.pierces.toLocaleString('en')} {price.pierces === 1 ? 'pierce' : 'pierces'}
                </dt>
                <dd className="nf-figure">{formatPrice(price.piercing)}</dd>
              </>
            )}
          </dl>
        </>
      )}
      {edit}
      {isOpen && <Rates job={job} />}
    </div>
  );
}
