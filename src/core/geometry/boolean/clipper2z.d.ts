declare module 'clipper2-wasm/dist/es/clipper2z.js' {
  import type { MainModule } from 'clipper2-wasm/dist/clipper2z';

  export default function start(options?: { locateFile?: (file: string) => string }): Promise<MainModule>;
}
