declare module 'wawoff2/decompress.js' {
  /** The TrueType or OpenType file in a WOFF2 file; throws where it can't be read. */
  export default function decompress(file: Uint8Array): Promise<Uint8Array>;
}

declare module 'wawoff2/compress.js' {
  /** A TrueType or OpenType file packed as WOFF2. */
  export default function compress(file: Uint8Array): Promise<Uint8Array>;
}
