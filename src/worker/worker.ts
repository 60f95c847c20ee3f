/** The web worker: a thin shell around the host. Documents come as updates and are asked about by their numbers. */
import { expose } from 'comlink';
import { ASKED_OF_DOCUMENTS, ASKED_OF_FACES, type AskedOfDocument, type WorkerApi } from './api';
import { Assets } from './assets';
import { Documents } from './documents';
import { Host } from './host';

async function fetchFace(file: string): Promise<Uint8Array> {
  const response = await fetch(`/typefaces/${file}`);
  if (!response.ok) throw new Error(`${file}: ${response.status}`);
  return new Uint8Array(await response.arrayBuffer());
}

async function fetchBytes(address: string): Promise<Uint8Array> {
  const response = await fetch(address);
  if (!response.ok) throw new Error(`${address}: ${response.status}`);
  return new Uint8Array(await response.arrayBuffer());
}

/** Questions that were sent together come in one after the other, in ms: files are asked for when there are no more for now. */
const TOGETHER_MS = 3;
const assets = new Assets(fetchBytes, (then) => setTimeout(then, TOGETHER_MS));

/** A turn of the event loop through a message channel: timers would wait four milliseconds. */
function pause(): Promise<void> {
  return new Promise((resolve) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => {
      port1.close();
      resolve();
    };
    port2.postMessage(null);
  });
}

const host = new Host(fetchFace, assets.fetch, pause, () => performance.now());
const documents = new Documents();

type Ask = (...args: unknown[]) => unknown;
const ask = (name: AskedOfDocument): Ask => {
  const answer = (host[name] as Ask).bind(host);
  return (serial, ...args) => answer(documents.of(serial as number), ...args);
};

expose({
  hold: (update) => documents.hold(update),
  ...Object.fromEntries(ASKED_OF_FACES.map((name) => [name, (host[name] as Ask).bind(host)])),
  ...Object.fromEntries(ASKED_OF_DOCUMENTS.map((name) => [name, ask(name)])),
} as WorkerApi);
