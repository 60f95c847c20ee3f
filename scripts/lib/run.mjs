// Running commands with their output shown, and stopping with a sentence when one fails.
import { spawn, spawnSync } from 'node:child_process';
import { root } from './paths.mjs';

/** Print a sentence and end with 1. */
export function stop(sentence) {
  console.error(`needlefile: ${sentence}`);
  process.exit(1);
}

/** Run to the end with output passed through; the exit status. */
export function run(command, args, { env = {}, cwd = root, quiet = false } = {}) {
  const result = spawnSync(command, args, {
    cwd,
    env: { ...process.env, ...env },
    stdio: quiet ? ['ignore', 'pipe', 'pipe'] : ['ignore', 'inherit', 'inherit'],
    encoding: 'utf8',
  });
  if (result.error) stop(`${command} could not be started: ${result.error.message}`);
  return { status: result.status ?? 1, output: `${result.stdout ?? ''}${result.stderr ?? ''}` };
}

/** The same, ending everything when it fails. */
export function must(command, args, options = {}) {
  const result = run(command, args, options);
  if (result.status !== 0) {
    if (options.quiet) console.error(result.output);
    stop(`“${[command, ...args].join(' ')}” ended with ${result.status}.`);
  }
  return result.output;
}

/** Start a command that keeps running; its output is passed through. */
export const start = (command, args, env = {}) =>
  spawn(command, args, { cwd: root, env: { ...process.env, ...env }, stdio: ['ignore', 'inherit', 'inherit'] });

/** The status a command that was started ends with. */
export const ended = (child) =>
  child.exitCode === null
    ? new Promise((resolve) => child.once('exit', (status) => resolve(status ?? 1)))
    : Promise.resolve(child.exitCode);

/** The path of a package's own command file, so that no shell stands between us and it. */
export const bin = (...parts) => [root, 'node_modules', ...parts].join('/');
