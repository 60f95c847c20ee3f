/** Whether the app is up. */
export const dynamic = 'force-dynamic';

export const GET = () => Response.json({ up: true });
