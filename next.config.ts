import type { NextConfig } from 'next';

/** What pages may load. Nothing but this app's own files; no inline script but the framework's. */
const policy = (scripts: string): string =>
  [
    "default-src 'self'",
    `script-src 'self' ${scripts}`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "worker-src 'self'",
    "connect-src 'self'",
    "font-src 'self' data:",
    "object-src 'none'",
    "base-uri 'self'",
    "frame-ancestors 'none'",
  ].join('; ');

const config: NextConfig = {
  reactStrictMode: true,
  // What a component gives is kept as long as what it reads is: an edit renders only what shows it.
  reactCompiler: true,
  poweredByHeader: false,
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
  headers: async () =>
    process.env.NODE_ENV === 'production'
      ? [
          { source: '/:path*', headers: [{ key: 'Content-Security-Policy', value: policy("'unsafe-inline'") }] },
          {
            // A worker is ruled by the policy sent with its own script. WebAssembly needs 'wasm-unsafe-eval', the glue
            // code of the polygon clipper 'unsafe-eval'; the pages themselves get neither.
            source: '/_next/static/:path*',
            headers: [{ key: 'Content-Security-Policy', value: policy("'wasm-unsafe-eval' 'unsafe-eval'") }],
          },
        ]
      : [],
};

export default config;
