export const root: string;
export const folder: string;
export const current: string;
export function stampOf(name: string, from?: string): string | null;
export function currentCommand(known?: string, from?: string): string | null;
export function writeWhole(file: string, content: string | Uint8Array): void;
