/** How names are laid on sheets. */
import Form from 'react-bootstrap/Form';
import { editLayout } from '@/core/commands/layout';
import { LIMITS } from '@/core/limits';
import type { RowLayout } from '@/core/schema/layout';
import { QuantityField } from '@/ui/fields';
import { dispatchDocument, useBench } from '../store';
import styles from './names.module.css';

const TURNS: readonly { readonly turns: number; readonly words: string }[] = [
  { turns: 1, words: 'as they are' },
  { turns: 2, words: 'also turned over' },
  { turns: 4, words: 'also across' },
  { turns: 8, words: 'in 8 directions' },
  { turns: 24, words: 'in 24 directions' },
];

/** How names are laid. */
export function LayoutSettings({ layout }: { layout: RowLayout }) {
  const unit = useBench((s) => s.job.units);
  const parts = useBench((s) => s.document.parts.filter((part) => !part.reference).length);
  const edit = (more: Partial<RowLayout>, merge: string | null = null) =>
    dispatchDocument((job) => editLayout(job, more), merge);
  const isNested = layout.way === 'nested';
  return (
    <div className={styles.layout}>
      <Form.Select
        size="sm"
        aria-label="How they are laid"
        value={layout.way}
        onChange={(e) => edit({ way: e.target.value as RowLayout['way'] })}
      >
        <option value="nested">As close as their shapes go</option>
        <option value="rows">In rows and columns</option>
        <option value="blanks">On blanks at their places</option>
      </Form.Select>
      {layout.way !== 'blanks' && (
        <>
          <div className={styles.field}>
            <QuantityField
              bare
              prefix="apart"
              label="Between them"
              unit={unit}
              value={layout.spacing}
              least={0}
              most={LIMITS.spacingMm}
              onChange={(spacing) => edit({ spacing }, 'layout-spacing')}
            />
          </div>
          <div className={styles.field}>
            <QuantityField
              bare
              prefix="edge"
              label="To the edge"
              unit={unit}
              value={layout.margin}
              least={0}
              most={LIMITS.spacingMm}
              onChange={(margin) => edit({ margin }, 'layout-margin')}
            />
          </div>
          {isNested && (
            <>
              <Form.Select
                size="sm"
                aria-label="Directions they may lie in"
                value={layout.turns}
                onChange={(e) => edit({ turns: Number(e.target.value) })}
              >
                {TURNS.map(({ turns, words }) => (
                  <option key={turns} value={turns}>
                    Lie {words}
                  </option>
                ))}
                {!TURNS.some(({ turns }) => turns === layout.turns) && (
                  <option value={layout.turns}>Lie in {layout.turns} directions</option>
                )}
              </Form.Select>
              {parts > 1 && (
                <Form.Select
                  size="sm"
                  aria-label="Parts of a name"
                  value={layout.apart}
                  onChange={(e) => edit({ apart: e.target.value as RowLayout['apart'] })}
                >
                  <option value="no">A name is one thing</option>
                  <option value="same-sheet">Its parts apart, on one sheet</option>
                  <option value="free">Its parts apart, on any sheet</option>
                </Form.Select>
              )}
              <Form.Check
                id="layout-grain"
                label="Grain keeps its direction"
                checked={layout.grain}
                onChange={(e) => edit({ grain: e.target.checked })}
              />
              <Form.Check
                id="layout-holes"
                label="Also in holes of others"
                checked={layout.holes}
                onChange={(e) => edit({ holes: e.target.checked })}
              />
            </>
          )}
        </>
      )}
    </div>
  );
}
