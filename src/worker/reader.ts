/** The web worker that files are read in: one for each file, so that it can be stopped whatever it is doing. */
import { expose } from 'comlink';
import { type Look, lookAt } from './reading';

const api = {
  look: (bytes: Uint8Array, progress: (share: number) => void): Look => {
    let last = 0;
    return lookAt(bytes, (share) => {
      // Every hundredth is enough to be told.
      if (share - last < 0.01) return;
      last = share;
      progress(share);
    });
  },
};
export type ReaderApi = typeof api;

expose(api);
