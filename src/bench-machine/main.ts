/**
 * Starts the bench machine on this machine's own line.
 *
 * NEEDLEFILE_MACHINE_PORT: the port. NEEDLEFILE_MACHINE_HOME: the folder of its files and its log. NEEDLEFILE_MACHINE_PACE: how many seconds
 * of a run pass in one.
 */
import { MachineLog } from './log';
import { Machine } from './machine';
import { serviceOf } from './service';

const OWN_ADDRESS = '127.0.0.1';
const TICK_MS = 250;

const port = Number(process.env.NEEDLEFILE_MACHINE_PORT);
const home = process.env.NEEDLEFILE_MACHINE_HOME;
const pace = Number(process.env.NEEDLEFILE_MACHINE_PACE ?? 20);
if (!home || !(port > 0) || !(pace > 0)) {
  console.error('needlefile: the bench machine needs a port, a folder, and a pace above 0.');
  process.exit(1);
}
const machine = new Machine(new MachineLog(home), Date.now, pace);
setInterval(() => machine.pass(), TICK_MS);
const server = serviceOf(machine);
server.on('error', (fault) => {
  console.error(`needlefile: the bench machine can’t be reached on port ${port}: ${fault.message}`);
  process.exit(1);
});
server.listen(port, OWN_ADDRESS);
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => process.exit(0));
