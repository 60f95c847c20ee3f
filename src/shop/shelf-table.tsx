/** A shelf of the shop as a table, sorted by what one presses; a row is taken in hand by pressing its name. */
import {
  createSortedRowModel,
  rowSortingFeature,
  type SortingState,
  sortFns,
  tableFeatures,
  useTable,
} from '@tanstack/react-table';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { useMemo } from 'react';
import type { EntryOf, KeptShop, Shelf } from '@/core/schema/shop/shop';
import type { LengthUnit } from '@/core/units/quantity';
import { COLUMNS, type Column } from './columns';
import styles from './shop.module.css';

const features = tableFeatures({ rowSortingFeature, sortedRowModel: createSortedRowModel(), sortFns });

type Row<S extends Shelf> = { readonly id: string; readonly entry: EntryOf<S> };

/** The table of a shelf. */
export function ShelfTable<S extends Shelf>({
  shelf,
  rows,
  shop,
  unit,
  chosen,
  onChoose,
}: {
  shelf: S;
  rows: readonly Row<S>[];
  shop: KeptShop;
  unit: LengthUnit;
  chosen: string | null;
  onChoose: (id: string) => void;
}) {
  const columns = useMemo(
    () =>
      (COLUMNS[shelf] as readonly Column<S>[]).map((column, i) => ({
        id: String(i),
        header: column.head,
        accessorFn: (row: Row<S>) => (column.by ? column.by(row.entry, shop) : column.of(row.entry, shop, unit)),
        meta: column,
      })),
    [shelf, shop, unit],
  );
  const data = useMemo(() => [...rows], [rows]);
  const initialState: { sorting: SortingState } = useMemo(() => ({ sorting: [] }), []);
  const table = useTable({ features, columns, data, initialState, getRowId: (row) => row.id });
  return (
    <table className={styles.table}>
      <thead>
        {table.getHeaderGroups().map((group) => (
          <tr key={group.id}>
            {group.headers.map(({ column }) => {
              const sorted = column.getIsSorted();
              const about = column.columnDef.meta as Column<S>;
              return (
                <th
                  key={column.id}
                  scope="col"
                  data-figure={about.isFigure ?? false}
                  aria-sort={sorted === 'asc' ? 'ascending' : sorted === 'desc' ? 'descending' : 'none'}
                >
                  <button type="button" onClick={column.getToggleSortingHandler()}>
                    {about.head}
                    {sorted === 'asc' && <ArrowUp size={12} aria-hidden="true" />}
                    {sorted === 'desc' && <ArrowDown size={12} aria-hidden="true" />}
                  </button>
                </th>
              );
            })}
          </tr>
        ))}
      </thead>
      <tbody>
        {table.getRowModel().rows.map((row) => (
          // The button in its first cell is for keyboard and screen reader.
          <tr key={row.id} data-chosen={row.id === chosen} onClick={() => onChoose(row.id)}>
            {row.getAllCells().map(({ column }, i) => {
              const about = column.columnDef.meta as Column<S>;
              const text = about.of(row.original.entry, shop, unit);
              return (
                <td key={column.id} data-figure={about.isFigure ?? false}>
                  {i === 0 ? (
                    <button type="button" aria-pressed={row.id === chosen}>
                      {text}
                    </button>
                  ) : (
                    text
                  )}
                </td>
              );
            })}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
