/** Files of one command: all of them are written, or none. */
import { mkdir, rename, rm, stat, writeFile } from 'node:fs/promises';
import path from 'node:path';

/** A file that is to be written; `isSaid` when its name is told. */
export type FileToWrite = { readonly file: string; readonly bytes: Uint8Array; readonly isSaid: boolean };

const WORDS: Readonly<Record<string, string>> = {
  EEXIST: 'there is a file where a folder is to be',
  ENOTDIR: 'there is a file where a folder is to be',
  EISDIR: 'there is a folder of that name',
  EACCES: 'it is not allowed there',
  EPERM: 'it is not allowed there',
  EROFS: 'nothing can be written there',
  ENOSPC: 'the disk is full',
  ENAMETOOLONG: 'the name is too long',
};

const isFolder = (file: string): Promise<boolean> =>
  stat(file).then(
    (s) => s.isDirectory(),
    () => false,
  );

/** Writes all files, beside their places first, then moves them there. A sentence when that can't be done; then none is written. */
export async function writeAll(files: readonly FileToWrite[]): Promise<string | null> {
  const beside = files.map(({ file }) => `${file}.${process.pid}.part`);
  let at = '';
  try {
    for (const [i, { file, bytes }] of files.entries()) {
      at = file;
      await mkdir(path.dirname(path.resolve(file)), { recursive: true });
      if (await isFolder(file)) throw Object.assign(new Error(), { code: 'EISDIR' });
      await writeFile(beside[i] as string, bytes);
    }
    for (const [i, { file }] of files.entries()) {
      at = file;
      await rename(beside[i] as string, file);
    }
    return null;
  } catch (reason) {
    await Promise.all(beside.map((file) => rm(file, { force: true }).catch(() => {})));
    const code = (reason as NodeJS.ErrnoException).code ?? '';
    return `${at} can’t be written: ${WORDS[code] ?? (code || String(reason))}. No file is written.`;
  }
}
