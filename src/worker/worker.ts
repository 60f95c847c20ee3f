/** The web worker: a thin shell around the host. */
import { expose } from 'comlink';
import { Host } from './host';

async function fetchFace(file: string): Promise<Uint8Array> {
  const response = await fetch(`/typefaces/${file}`);
  if (!response.ok) throw new Error(`${file}: ${response.status}`);
  return new Uint8Array(await response.arrayBuffer());
}

async function fetchAsset(id: string): Promise<string> {
  const response = await fetch(`/api/assets/${id}`);
  if (!response.ok) throw new Error(`${id}: ${response.status}`);
  return response.text();
}

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

const host = new Host(fetchFace, fetchAsset, pause, () => performance.now());

export type WorkerApi = Pick<
  Host,
  | 'asCut'
  | 'inHand'
  | 'middleOf'
  | 'bridgeThrough'
  | 'bridgeVariants'
  | 'evaluate'
  | 'files'
  | 'regionAt'
  | 'safePart'
  | 'samples'
  | 'sizingTo'
  | 'summary'
  | 'toolTrials'
>;

expose({
  asCut: (...args: Parameters<Host['asCut']>) => host.asCut(...args),
  bridgeThrough: (...args: Parameters<Host['bridgeThrough']>) => host.bridgeThrough(...args),
  bridgeVariants: (...args: Parameters<Host['bridgeVariants']>) => host.bridgeVariants(...args),
  inHand: (...args: Parameters<Host['inHand']>) => host.inHand(...args),
  middleOf: (...args: Parameters<Host['middleOf']>) => host.middleOf(...args),
  evaluate: (...args: Parameters<Host['evaluate']>) => host.evaluate(...args),
  files: (...args: Parameters<Host['files']>) => host.files(...args),
  sizingTo: (...args: Parameters<Host['sizingTo']>) => host.sizingTo(...args),
  summary: (...args: Parameters<Host['summary']>) => host.summary(...args),
  regionAt: (...args: Parameters<Host['regionAt']>) => host.regionAt(...args),
  safePart: (...args: Parameters<Host['safePart']>) => host.safePart(...args),
  samples: (...args: Parameters<Host['samples']>) => host.samples(...args),
  toolTrials: (...args: Parameters<Host['toolTrials']>) => host.toolTrials(...args),
} satisfies WorkerApi);
