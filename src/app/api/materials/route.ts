/** The materials there are, with what is safe in them. */
import { answer } from '@/server/answer';
import { listMaterials } from '@/server/materials';

export const dynamic = 'force-dynamic';

export const GET = () => answer(async (db) => Response.json(await listMaterials(db)));
