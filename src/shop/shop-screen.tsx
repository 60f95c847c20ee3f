'use client';

/** The shop: machines, materials, tools and cut charts, each a table with a form beside the row in hand. */
import Link from 'next/link';
import { useCallback, useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import ToastContainer from 'react-bootstrap/ToastContainer';
import { type EntryOf, type KeptShop, SHELF_NAMES, type Shelf } from '@/core/schema/shop/shop';
import { readShopText, writeShop } from '@/core/shop/exchange';
import type { LengthUnit } from '@/core/units/quantity';
import { HelpButton } from '@/help/help-button';
import { download } from '@/ui/download';
import { FileButton } from '@/ui/file-button';
import { Logo } from '@/ui/marks';
import { remember, remembered } from '@/ui/remembered';
import { SchemeSwitch } from '@/ui/scheme-switch';
import { UndoToast } from '@/ui/undo-toast';
import { useShopAsked } from '@/ui/use-shop';
import { inChartOrder } from './chart-order';
import { EntryForm } from './entry-form';
import { newEntry } from './new-entry';
import { ShelfTable } from './shelf-table';
import styles from './shop.module.css';
import { type Removed, useEntries } from './use-entries';

const SHELF_WORDS: Readonly<Record<Shelf, { readonly word: string; readonly one: string; readonly none: string }>> = {
  machines: { word: 'Machines', one: 'machine', none: 'No machines yet.' },
  materials: { word: 'Materials', one: 'material', none: 'No materials yet.' },
  tools: { word: 'Tools', one: 'tool', none: 'No tools yet.' },
  chart: { word: 'Cut charts', one: 'row', none: 'No rows for this machine and material yet.' },
};

const NOTHING: KeptShop = { machines: [], materials: [], tools: [], chart: [] };
const count = (n: number, word: string) => `${n} ${word}`;

/** The screen of the shop. */
export function ShopScreen() {
  const { data: shop = NOTHING, error, refetch, isPending } = useShopAsked();
  const [shelf, setShelf] = useState<Shelf>('machines');
  const [chosen, setChosen] = useState<string | null>(null);
  const [machine, setMachine] = useState('');
  const [material, setMaterial] = useState('');
  const [sentence, setSentence] = useState<string | null>(null);
  const [removed, setRemoved] = useState<Removed | null>(null);
  /** Counts the times that what is in hand came anew from the server. */
  const [anew, setAnew] = useState(0);
  const [unit, setUnit] = useState<LengthUnit>(() => (remembered('units') === 'in' ? 'in' : 'mm'));
  const trouble = useCallback((said: string, isShownAnew: boolean) => {
    setSentence(said);
    if (isShownAnew) setAnew((n) => n + 1);
  }, []);
  const { keep, remove, restore, bringIn } = useEntries(trouble);

  const inSight = machine || shop.machines[0]?.id || '';
  const rows = useMemo(
    () =>
      shelf === 'chart'
        ? inChartOrder(shop).filter(
            ({ entry }) => entry.machine === inSight && (material === '' || entry.material === material),
          )
        : shop[shelf],
    [shop, shelf, inSight, material],
  );
  const inHand = shop[shelf].find((kept) => kept.id === chosen);

  const add = async () => {
    const entry = newEntry(shelf, shop, { machine: inSight, material });
    if (!entry) {
      setSentence('A row of a cut chart is for a machine and a material: add these first.');
      return;
    }
    const id = crypto.randomUUID().slice(0, 13);
    if (await keep(shelf, id, entry)) setChosen(id);
  };
  const takeAlong = () =>
    download('needlefile-shop.json', new TextEncoder().encode(writeShop(shop)), 'application/json');
  const bring = async ([file]: readonly File[]) => {
    if (!file) return;
    const read = readShopText(await file.text());
    if (!read.ok) {
      setSentence(read.sentence);
      return;
    }
    bringIn.mutate(JSON.parse(writeShop(read.shop)), {
      onSuccess: ({ added, changed, same }) => {
        setAnew((n) => n + 1);
        setSentence(
          `From “${file.name}”: ${count(added, 'added')}, ${count(changed, 'changed')}, ${count(same, 'there already')}.`,
        );
      },
    });
  };
  const takeOut = (id: string, name: string) => {
    const what = { shelf, id, name };
    remove.mutate(what, {
      onSuccess: () => {
        setRemoved(what);
        setChosen(null);
      },
    });
  };
  const words = SHELF_WORDS[shelf];
  return (
    <main className={styles.screen}>
      <header className={styles.head}>
        <Link href="/" aria-label="All jobs" title="All jobs">
          <Logo />
        </Link>
        <h1>Shop</h1>
        <nav className={styles.shelves} aria-label="Shelves">
          {SHELF_NAMES.map((name) => (
            <Button
              key={name}
              variant="plain"
              aria-current={name === shelf}
              onClick={() => {
                setShelf(name);
                setChosen(null);
              }}
            >
              {SHELF_WORDS[name].word}
            </Button>
          ))}
        </nav>
        <div className="ms-auto">
          <Form.Select
            size="sm"
            aria-label="Unit"
            value={unit}
            onChange={(e) => {
              const next = e.target.value === 'in' ? 'in' : 'mm';
              setUnit(next);
              remember('units', next);
            }}
          >
            <option value="mm">mm</option>
            <option value="in">in</option>
          </Form.Select>
          <Button variant="plain" title="The shop as a file, for another Needlefile" onClick={takeAlong}>
            Take along
          </Button>
          <FileButton
            accept={['.json']}
            label="A file with a shop"
            title="Add what a file with a shop has"
            onFiles={(files) => void bring(files)}
          >
            Bring in
          </FileButton>
          <HelpButton at="shop" />
          <SchemeSwitch />
        </div>
      </header>
      {(sentence ?? error) && (
        <div className={styles.came} role="alert">
          {sentence ?? error?.message}{' '}
          <Button
            variant="word"
            onClick={() => {
              setSentence(null);
              if (error) void refetch();
            }}
          >
            {error ? 'Try again' : 'Close'}
          </Button>
        </div>
      )}
      <div className={styles.columns}>
        <section className={styles.listing} aria-label={words.word}>
          <div className={styles.asked}>
            {shelf === 'chart' && (
              <>
                <Form.Select
                  size="sm"
                  aria-label="Machine of the chart"
                  value={inSight}
                  onChange={(e) => setMachine(e.target.value)}
                >
                  {shop.machines.map(({ id, entry }) => (
                    <option key={id} value={id}>
                      {entry.name}
                    </option>
                  ))}
                </Form.Select>
                <Form.Select
                  size="sm"
                  aria-label="Material of the chart"
                  value={material}
                  onChange={(e) => setMaterial(e.target.value)}
                >
                  <option value="">all materials</option>
                  {shop.materials.map(({ id, entry }) => (
                    <option key={id} value={id}>
                      {entry.name}
                    </option>
                  ))}
                </Form.Select>
              </>
            )}
            <Button variant="plain" disabled={isPending} onClick={() => void add()}>
              + {words.one}
            </Button>
          </div>
          <div className={styles.rows}>
            {rows.length === 0 ? (
              <p className="nf-muted p-3 m-0">{isPending ? 'The shop is on its way.' : words.none}</p>
            ) : (
              <ShelfTable
                key={shelf}
                shelf={shelf}
                rows={rows as readonly { id: string; entry: EntryOf<Shelf> }[]}
                shop={shop}
                unit={unit}
                chosen={chosen}
                onChoose={setChosen}
              />
            )}
          </div>
        </section>
        <section className={styles.form} aria-label="In hand">
          {inHand ? (
            <EntryForm
              key={`${shelf}:${inHand.id}:${anew}:${unit}`}
              shelf={shelf}
              id={inHand.id}
              entry={inHand.entry as EntryOf<Shelf>}
              shop={shop}
              unit={unit}
              onKeep={(entry) => keep(shelf, inHand.id, entry)}
              onRemove={() =>
                takeOut(inHand.id, 'name' in inHand.entry ? inHand.entry.name : `a row for ${inHand.entry.kind}`)
              }
            />
          ) : (
            <p className="nf-muted mt-3">
              Press a row to see all of it, and to change it. What is typed is kept at once.
            </p>
          )}
        </section>
      </div>
      <ToastContainer position="bottom-center" className="p-3 position-fixed">
        <UndoToast
          words={removed && `“${removed.name}” was taken out of the shop.`}
          onUndo={() => removed && restore.mutate(removed, { onSuccess: () => setRemoved(null) })}
          onClose={() => setRemoved(null)}
        />
      </ToastContainer>
    </main>
  );
}
