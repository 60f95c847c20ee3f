/** Long lists in a panel that scrolls as a whole: only the rows in sight are there. */
import { useVirtualizer } from '@tanstack/react-virtual';
import { type ReactNode, useLayoutEffect, useRef, useState } from 'react';

/** Lists up to this long are there as a whole, to be found by the browser’s own search. */
const WHOLE = 60;
/** Rows beyond the edges that are made ready. */
const BEYOND = 6;

type RowsProps = {
  /** What it is a list of, for screen readers. */
  readonly label: string;
  readonly keys: readonly string[];
  /** About how high a row is, in pixels; it is measured when it is in sight. */
  readonly estimate: number;
  readonly children: (key: string) => ReactNode;
};

/** A list of rows. */
export const VirtualRows = (props: RowsProps) =>
  props.keys.length > WHOLE ? <Long {...props} /> : <Whole {...props} />;

const Whole = ({ label, keys, children }: RowsProps) => (
  <ul className="list-unstyled m-0" aria-label={label}>
    {keys.map((key) => (
      <li key={key}>{children(key)}</li>
    ))}
  </ul>
);

function Long({ label, keys, estimate, children }: RowsProps) {
  // The virtual list changes in place, which the compiler can't see.
  'use no memo';
  const list = useRef<HTMLUListElement>(null);
  const [above, setAbove] = useState(0);
  const scroller = () => list.current?.closest<HTMLElement>('[data-scrolls]') ?? null;
  const virtual = useVirtualizer({
    count: keys.length,
    getScrollElement: scroller,
    estimateSize: () => estimate,
    overscan: BEYOND,
    scrollMargin: above,
    getItemKey: (i) => keys[i] ?? i,
  });
  // What stands above the list in its panel comes and goes.
  useLayoutEffect(() => {
    const panel = scroller();
    if (!panel || !list.current) return;
    setAbove(list.current.getBoundingClientRect().top - panel.getBoundingClientRect().top + panel.scrollTop);
  });
  return (
    <ul
      ref={list}
      className="list-unstyled m-0 position-relative"
      aria-label={label}
      style={{ height: virtual.getTotalSize() }}
    >
      {virtual.getVirtualItems().map(({ index, key, start }) => (
        <li
          key={key}
          ref={virtual.measureElement}
          data-index={index}
          aria-setsize={keys.length}
          aria-posinset={index + 1}
          className="position-absolute w-100"
          style={{ top: start - above }}
        >
          {children(String(key))}
        </li>
      ))}
    </ul>
  );
}
