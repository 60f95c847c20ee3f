/** Web workers in Node: what they are made to do runs in the same thread, spoken to over a real message channel. */
import { expose } from 'comlink';
import { vi } from 'vitest';

export type Started = { readonly name: string; ended: boolean; readonly fail: () => void };

/** Workers that are started from now on answer with `api`; returns those started, in order. */
export function workersAnswer(api: object): Started[] {
  const started: Started[] = [];
  class WorkerHere extends EventTarget {
    onerror: ((event: Event) => void) | null = null;
    private readonly port: MessagePort;

    constructor(_url: URL, { name }: { name: string }) {
      super();
      const { port1, port2 } = new MessageChannel();
      this.port = port1;
      expose(api, port2);
      port1.start();
      port1.addEventListener('message', (event) => {
        if (!state.ended) this.dispatchEvent(Object.assign(new Event('message'), { data: event.data }));
      });
      const state: Started = {
        name,
        ended: false,
        fail: () => this.onerror?.(new Event('error')),
      };
      this.state = state;
      started.push(state);
    }

    private readonly state: Started;

    postMessage(message: unknown, transfer: Transferable[] = []): void {
      this.port.postMessage(message, transfer);
    }

    terminate(): void {
      this.state.ended = true;
      this.port.close();
    }
  }
  vi.stubGlobal('Worker', WorkerHere);
  return started;
}
