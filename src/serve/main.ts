/**
 * Serves the built app on this machine's own line, and on an address of the network where that is asked for.
 *
 * PORT: the port. NEEDLEFILE_HOST: the address of this machine in the network; without it nobody else is let in.
 */
import { readFileSync } from 'node:fs';
import { isIP } from 'node:net';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import next from 'next';
import { clearUnusedAssets } from '../server/assets';
import { database } from '../server/database';
import { readSettings } from '../server/settings';
import { Entrance } from './entrance';
import { serverFor } from './server';

const OWN_ADDRESS = '127.0.0.1';
const DAY_MS = 24 * 3_600_000;
const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..', '..');

function end(sentence: string): never {
  console.error(`needlefile: ${sentence}`);
  process.exit(1);
}

function read(file: string): string {
  try {
    return readFileSync(file, 'utf8');
  } catch {
    return end(`${file} of the certificate can’t be read. “npm run settings” names another one.`);
  }
}

const port = Number(process.env.PORT);
const host = process.env.NEEDLEFILE_HOST || null;
if (host !== null && (isIP(host) === 0 || host === '0.0.0.0' || host === '::'))
  end(`“${host}” is no address to serve on: give that of this machine in the network, such as 192.168.1.5.`);

const { names, passphrase, certificate } = await readSettings(database());
if (host !== null && !passphrase)
  end('Others of the network are let in by a passphrase only. Set one first: npm run settings -- passphrase');

const app = next({ dev: false, dir: root, hostname: OWN_ADDRESS, port });
await app.prepare();
const handle = app.getRequestHandler();

function listen(address: string, server: ReturnType<typeof serverFor>): void {
  server.on('error', (fault: NodeJS.ErrnoException) =>
    end(
      fault.code === 'EADDRNOTAVAIL'
        ? `${address} is not an address of this machine.`
        : `${address} can’t be served on port ${port}: ${fault.message}`,
    ),
  );
  server.listen(port, address);
}
listen(OWN_ADDRESS, serverFor({ names, entrance: null, handle }, null));
if (host !== null && passphrase && host !== OWN_ADDRESS) {
  const pem = certificate && { cert: read(certificate.certFile), key: read(certificate.keyFile) };
  listen(host, serverFor({ names, entrance: new Entrance(passphrase, Date.now), handle }, pem));
  console.log(`The network reaches it at ${pem ? 'https' : 'http'}://${host}:${port}`);
  if (!pem) console.log('That line is not encrypted: whoever shares the network can read along.');
}
/** Files that nothing uses are looked for once a day; where that does not go well, it does the next day. */
const clear = () => clearUnusedAssets(database()).catch(() => 0);
void clear();
setInterval(clear, DAY_MS).unref();
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => process.exit(0));
