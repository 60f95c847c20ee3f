// npm run settings: who is let in from the network, and by which names. What is changed counts from the next start on.
import fs from 'node:fs';
import path from 'node:path';
import readline from 'node:readline';
import { Writable } from 'node:stream';
import { keptPassphrase } from '../src/serve/entrance';
import { openDatabase } from '../src/server/database';
import { changeSettings, readSettings, type Settings } from '../src/server/settings';

const LEAST_CHARACTERS = 8;
const HELP = `npm run settings                              shows what is set
npm run settings -- passphrase                asks for a new one; "passphrase none" takes it away
npm run settings -- name NAME                 lets this machine be called by a further name; "no-name NAME" takes it back
npm run settings -- certificate CERT KEY      files in PEM, for an encrypted line; "certificate none" takes them away`;

/** Ask for a line that is not shown while it is typed; what is piped in is read as it is. */
async function askHidden(words: string): Promise<string> {
  const isTerminal = process.stdin.isTTY === true;
  const silent = new Writable({ write: (_chunk, _encoding, done) => done() });
  const lines = readline.createInterface({ input: process.stdin, output: silent, terminal: isTerminal });
  if (isTerminal) process.stdout.write(words);
  try {
    for await (const line of lines) return line;
    return '';
  } finally {
    lines.close();
    if (isTerminal) process.stdout.write('\n');
  }
}

/** Thrown with a sentence for whoever typed the command. */
class Refused extends Error {}

async function changesOf([word, ...rest]: readonly string[], now: Settings): Promise<Partial<Settings> | null> {
  if (word === undefined) return null;
  if (word === 'passphrase' && rest[0] === 'none') return { passphrase: null };
  if (word === 'passphrase' && rest.length === 0) {
    const words = await askHidden('New passphrase: ');
    if ([...words].length < LEAST_CHARACTERS)
      throw new Refused(`A passphrase has at least ${LEAST_CHARACTERS} characters; nothing was changed.`);
    return { passphrase: await keptPassphrase(words) };
  }
  const [first, second] = rest;
  if (word === 'name' && first && rest.length === 1) {
    if (!/^[a-z0-9._-]+$/i.test(first)) throw new Refused(`“${first}” is no name of a machine; nothing was changed.`);
    return { names: [...new Set([...now.names, first.toLowerCase()])] };
  }
  if (word === 'no-name' && first && rest.length === 1)
    return { names: now.names.filter((name) => name !== first.toLowerCase()) };
  if (word === 'certificate' && first === 'none' && rest.length === 1) return { certificate: null };
  if (word === 'certificate' && first && second && rest.length === 2) {
    const [certFile, keyFile] = [path.resolve(first), path.resolve(second)];
    for (const file of [certFile, keyFile])
      if (!fs.existsSync(file)) throw new Refused(`There is no file ${file}; nothing was changed.`);
    return { certificate: { certFile, keyFile } };
  }
  throw new Refused(HELP);
}

const { database, close } = openDatabase(process.env.DATABASE_URL ?? '');
try {
  const changes = await changesOf(process.argv.slice(2), await readSettings(database));
  if (changes) await changeSettings(database, changes);
  const { passphrase, names, certificate } = await readSettings(database);
  console.log(`Passphrase for the network: ${passphrase ? 'set' : 'none'}`);
  console.log(`Further names of this machine: ${names.join(', ') || 'none'}`);
  console.log(`Certificate: ${certificate ? `${certificate.certFile}, ${certificate.keyFile}` : 'none'}`);
  if (changes) console.log('This counts from the next start of Needlefile on.');
} catch (reason) {
  if (!(reason instanceof Refused)) throw reason;
  console.error(reason.message);
  process.exitCode = 1;
} finally {
  await close();
}
