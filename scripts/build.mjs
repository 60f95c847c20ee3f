// Builds the app where something it is made from has changed.
import { ensureBuilt } from './lib/build.mjs';

await ensureBuilt();
