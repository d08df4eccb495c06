/**
 * `npm run standins`: machines of the demo that are not there, to be asked over SSH, SNMP and Redfish on this machine's loopback. Bring in
 * offers them while they run. Ends with Ctrl C.
 */
import { createServer } from 'node:http';
import { StandIn, type StandInMachine } from '../src/standins/machine';
import { STAND_IN, standInRedfish, standInSnmp, standInSsh } from '../src/standins/servers';

const FIRST_PORT = Number(process.env['STANDINS_PORT'] ?? 4290);
const DAY = '2031-03-10';

const MACHINES: Readonly<Record<'ssh' | 'snmp' | 'redfish', readonly StandInMachine[]>> = {
  ssh: [
    { name: 'draw-01', product: 'Garnock Desk', version: '4 r1', edition: 'Studio' },
    { name: 'clock-01', product: 'Brindle Server', version: '6' },
    { name: 'west-04', product: 'Garnock Desk', version: '3 r5', edition: 'Plain' }
  ],
  snmp: [
    { name: 'shelf-north', product: 'Ossian Shelf', version: '31.4 p7' },
    { name: 'stop-01', product: 'Pellow Terminal', version: '12 k1' }
  ],
  redfish: [{ name: 'host-a-01', product: 'Corbel Host', version: '4 c2' }]
};

let port = FIRST_PORT;
const started: object[] = [];
for (const by of ['ssh', 'snmp', 'redfish'] as const) {
  const targets = [];
  for (const one of MACHINES[by]) {
    const machine = new StandIn(one);
    port++;
    await (by === 'ssh'
      ? standInSsh(machine, () => DAY, { port })
      : by === 'snmp'
        ? standInSnmp(machine, port)
        : standInRedfish(machine, port));
    targets.push({ address: '127.0.0.1', port });
    console.log(`${machine.name}: ${machine.runs}, ${by} at 127.0.0.1:${port}`);
  }
  started.push({ by, targets });
}
createServer((_, answer) => {
  answer.writeHead(200, { 'content-type': 'application/json' });
  answer.end(JSON.stringify(started));
}).listen(FIRST_PORT, '127.0.0.1');
console.log(`Let in: user ${STAND_IN.user}, password ${STAND_IN.password}, community ${STAND_IN.community}`);
