export class BackupFault extends Error {}
export type Counts = Readonly<Record<'jobs' | 'job_revisions' | 'assets' | 'settings' | 'shop_entries', number>>;
export const countWords: (counts: Counts) => string;
export function backUp(url: string, file: string, say?: (words: string) => void): Promise<Counts>;
export function lookThrough(file: string): Promise<Counts>;
export function restoreInto(url: string, file: string, say?: (words: string) => void): Promise<Counts>;
