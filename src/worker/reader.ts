/** The web worker that files are read in: one for each file, so that it can be stopped whatever it is doing. */
import { expose } from 'comlink';
import { pictureHead } from '../core/formats/picture-size';
import { scriptEngine } from '../core/geometry/boolean/engine-script';
import { loadWasmEngine } from '../core/geometry/boolean/engine-wasm';
import { type OpenedJob, openTaken } from '../core/job/taken-along';
import { type FacesInFile, facesAbout } from '../core/lettering/about';
import { type ReadList, type ReadListAs, readList } from '../core/roster/read-list';
import { decodePicture, encodePixels } from './decode-picture';
import { lookAtPicture } from './picture-reading';
import { type FilePreview, type PagePicture, picturePages, previewFile } from './reading';

const engine = () => loadWasmEngine().catch(() => scriptEngine);

const api = {
  preview: (bytes: Uint8Array, page: number, progress: (share: number) => void): Promise<FilePreview> => {
    let last = 0;
    const report = (share: number) => {
      // Every hundredth is enough to be told.
      if (share - last < 0.01) return;
      last = share;
      progress(share);
    };
    const head = pictureHead(bytes);
    if (head) return lookAtPicture(bytes, head, decodePicture, report);
    return previewFile(bytes, { page, progress: report, encode: encodePixels }, engine);
  },
  list: (bytes: Uint8Array, as: ReadListAs): Promise<ReadList> => Promise.resolve(readList(bytes, as)),
  taken: (bytes: Uint8Array): Promise<OpenedJob> => Promise.resolve(openTaken(bytes)),
  typeface: (bytes: Uint8Array): Promise<FacesInFile> => facesAbout(bytes),
  pictures: (bytes: Uint8Array, from: number, to: number, put: (picture: PagePicture) => void): Promise<void> =>
    picturePages(bytes, { from, to }, put),
};

/** What the page asks of the worker that reads files. */
export type ReaderApi = typeof api;

expose(api);
