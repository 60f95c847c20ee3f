/** What is left of the last sheet that names lie on: its size, and kept in the shop for a later job. */
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { call } from '@/api/call';
import { API } from '@/api/endpoints';
import { materialNamed } from '@/core/document/material';
import type { Job } from '@/core/document/schema';
import { LIMITS } from '@/core/limits';
import type { LeftOver } from '@/core/nesting/off-cut';
import { formatLengthNumber } from '@/core/units/quantity';
import { formatArea } from '@/ui/figures';
import { SHOP, useShop } from '@/ui/use-shop';
import { say } from '../store';

/** What is left, in words, and to be kept where the shop has the material. */
export function LeftOfSheet({ left, document }: { left: LeftOver; document: Job }) {
  const client = useQueryClient();
  const shop = useShop();
  const [kept, setKept] = useState<LeftOver | null>(null);
  const { units, sheet } = document;
  const material = materialNamed(
    sheet.material,
    shop.materials.map((m) => ({ ...m.entry, of: m })),
  )?.of;
  const n = (mm: number) => formatLengthNumber(mm, units);
  const isRoom = material !== undefined && material.entry.sheets.length < LIMITS.sheetSizes;
  const isLarge = Math.min(left.width, left.height) >= LIMITS.sheetLeastMm;
  const keep = async () => {
    if (!material) return;
    const { id, version, entry } = material;
    const { corners, width, height } = left;
    // Four corners are a sheet like any other.
    const offCut = corners.length > 4 ? corners : null;
    try {
      await call(
        API.keepEntry,
        { shelf: 'materials', entry: id },
        { version, entry: { ...entry, sheets: [...entry.sheets, { width, height, offCut }] } },
      );
      setKept(left);
      say(`It is in stock now, with the sheets of ${entry.name}.`);
    } catch (reason) {
      say(`It could not be kept: ${reason instanceof Error ? reason.message : 'the server is away'}`);
    } finally {
      void client.invalidateQueries({ queryKey: SHOP });
    }
  };
  return (
    <span className="nf-small">
      {' '}
      Left of the last: {n(left.width)} × {n(left.height)} {units}, {formatArea(left.mm2, units)}.{' '}
      {isRoom && isLarge && kept !== left && (
        <Button variant="word" onClick={() => void keep()}>
          Keep it in stock
        </Button>
      )}
    </span>
  );
}
