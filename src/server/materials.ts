/** The list of materials. */
import { asc } from 'drizzle-orm';
import type { Material } from '../core/document/material';
import type { Database } from './database';
import { materials } from './schema';

/** All materials, by name. */
export const listMaterials = (db: Database): Promise<Material[]> =>
  db.select().from(materials).orderBy(asc(materials.name));
