/** Several files as one body: each as its length in four bytes, most significant first, and its bytes; one that is not there has none. */

/** The length that says that a file is not there. */
const GONE = 0xffffffff;

/** Files as one body. */
export function bundled(files: readonly (Uint8Array | null)[]): Uint8Array {
  const out = new Uint8Array(files.reduce((sum, file) => sum + 4 + (file?.length ?? 0), 0));
  const view = new DataView(out.buffer);
  let at = 0;
  for (const file of files) {
    view.setUint32(at, file?.length ?? GONE);
    at += 4;
    if (!file) continue;
    out.set(file, at);
    at += file.length;
  }
  return out;
}

/** The files of such a body; throws where it was cut off. */
export function unbundled(body: Uint8Array): (Uint8Array | null)[] {
  const view = new DataView(body.buffer, body.byteOffset, body.length);
  const files: (Uint8Array | null)[] = [];
  for (let at = 0; at < body.length; ) {
    const length = view.getUint32(at);
    at += 4;
    if (length === GONE) files.push(null);
    else {
      if (at + length > body.length) throw new Error('The files did not arrive whole.');
      files.push(body.slice(at, at + length));
      at += length;
    }
  }
  return files;
}
