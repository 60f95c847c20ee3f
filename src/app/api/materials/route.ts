/** The materials there are, with what is safe in them. */
import { API } from '@/api/endpoints';
import { serve } from '@/server/answer';
import { listMaterials } from '@/server/materials';

export const dynamic = 'force-dynamic';

export const GET = serve(API.listMaterials, ({ db }) => listMaterials(db));
