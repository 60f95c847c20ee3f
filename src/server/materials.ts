/** The list of materials. */
import { asc } from 'drizzle-orm';
import type { Material } from '../core/document/material';
import type { Database } from './database';
import { kerfs, materials } from './schema';

/** All materials, by name, each with its kerfs. */
export async function listMaterials(db: Database): Promise<Material[]> {
  const [listed, widths] = await Promise.all([
    db.select().from(materials).orderBy(asc(materials.name)),
    db.select().from(kerfs),
  ]);
  return listed.map((material) => ({
    ...material,
    kerfsMm: Object.fromEntries(widths.filter((k) => k.material === material.name).map((k) => [k.process, k.kerfMm])),
  }));
}
