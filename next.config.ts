import type { NextConfig } from 'next';

const config: NextConfig = {
  reactStrictMode: true,
  // What a component gives is kept as long as what it reads is: an edit renders only what shows it.
  reactCompiler: true,
  poweredByHeader: false,
  // No pictures are made smaller on the server.
  images: { unoptimized: true },
  agentRules: false,
  serverExternalPackages: ['pg', 'harfbuzzjs', 'clipper2-wasm'],
  // Bootstrap's SCSS still uses @import and the old colour functions.
  sassOptions: {
    quietDeps: true,
    silenceDeprecations: ['import', 'global-builtin', 'color-functions', 'if-function'],
  },
  turbopack: {
    root: import.meta.dirname,
    // The WebAssembly packages hold `await import("module")` behind a test for Node.
    resolveAlias: { module: { browser: false } as never },
  },
};

export default config;
