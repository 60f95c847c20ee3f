/**
 * Kept files by their ids. Those asked for at about the same time come in one answer: a list of typefaces asks for a screenful of them, and
 * most of what a small file costs is the asking.
 */
import { unbundled } from '../api/bundle';
import { LIMITS } from '../core/limits';

type Waiting = {
  readonly id: string;
  readonly came: (bytes: Uint8Array) => void;
  readonly failed: (reason: Error) => void;
};

/** Fetches kept files. `fetchBytes` brings the bytes of an address, `soon` calls back when others may have asked too. */
export class Assets {
  private waiting: Waiting[] = [];

  constructor(
    private readonly fetchBytes: (address: string) => Promise<Uint8Array>,
    private readonly soon: (then: () => void) => void,
  ) {}

  /** The bytes of a kept file; throws where it is not there, or can't be fetched. */
  readonly fetch = (id: string): Promise<Uint8Array> =>
    new Promise((came, failed) => {
      this.waiting.push({ id, came, failed });
      if (this.waiting.length === 1) this.soon(() => this.send());
    });

  private send(): void {
    const asked = this.waiting;
    this.waiting = [];
    for (let at = 0; at < asked.length; at += LIMITS.assetsAtOnce)
      void this.bring(asked.slice(at, at + LIMITS.assetsAtOnce));
  }

  private async bring(asked: readonly Waiting[]): Promise<void> {
    try {
      const [only] = asked;
      // By itself it can be kept by the browser.
      if (asked.length === 1 && only) return only.came(await this.fetchBytes(`/api/assets/${only.id}`));
      const ids = asked.map(({ id }) => id).join();
      const files = unbundled(await this.fetchBytes(`/api/assets?ids=${ids}`));
      asked.forEach(({ id, came, failed }, i) => {
        const bytes = files[i];
        if (bytes) came(bytes);
        // Left out for its weight, or not there: asked by itself, it says which.
        else this.fetchBytes(`/api/assets/${id}`).then(came, failed);
      });
    } catch (reason) {
      for (const { failed } of asked) failed(reason instanceof Error ? reason : new Error(String(reason)));
    }
  }
}
