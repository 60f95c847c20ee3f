/** What a format that is read is: one file says all about it (svg-read/format.ts, dxf-read/format.ts), readers.ts lists them. */
import type { Reading, ReadProgress } from './read-drawing';

/** A file to be read: its bytes, and what it starts with. */
export type FileToRead = {
  readonly bytes: Uint8Array;
  /** The first 4,096 bytes, each as a character. */
  readonly start: string;
  /** All of it as text, by the encoding it says it has. */
  readonly text: () => string;
};

/** A format as it is told from others. */
type Recognised = {
  readonly word: string;
  /** Endings of file names, for the dialog that offers files; what a file is is told by what is in it. */
  readonly endings: readonly string[];
  /** Whether a file is surely of this format, by how it starts. */
  readonly recognises: (file: FileToRead) => boolean;
  /** Whether it may be, where nothing else is known about it. */
  readonly mayBe?: (file: FileToRead) => boolean;
};

/** A format whose files are one drawing. */
export type WholeFormat = Recognised & {
  /** Reads it. Never throws for what is in the file. */
  readonly read: (file: FileToRead, progress: ReadProgress) => Reading;
};

/** A format whose files have pages, which are read one by one. */
export type PagedFormat = Recognised & {
  /** Opens it. Never throws for what is in the file. */
  readonly open: (file: FileToRead) => Promise<Opened>;
};

/** A format that is read: its words, how it is recognised, and its reader. */
export type FormatToRead = WholeFormat | PagedFormat;

/** A file whose pages can be read, each a drawing; or a sentence why it can't be opened. */
export type Opened =
  | {
      readonly ok: true;
      readonly pages: number;
      /** Reads the page of a number, from 0. Never throws for what is in the file. */
      readonly read: (page: number, progress: ReadProgress) => Promise<Reading>;
      readonly close: () => Promise<void>;
    }
  | { readonly ok: false; readonly sentence: string };
