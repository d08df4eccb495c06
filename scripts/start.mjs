// `npm start`: installs what is missing, builds, serves the application. HOST and PORT choose another address.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { readFileSync } from 'node:fs';
import { build, installPackages, root } from './install.mjs';

installPackages();
build();
const host = process.env.HOST ?? '127.0.0.1';
const port = process.env.PORT ?? '4180';
console.log(`Orange Stair: http://${host}:${port}/  (Ctrl C ends it)`);
const memory = JSON.parse(readFileSync(join(root, 'scripts', 'memory.json'), 'utf8'));
const server = spawn(process.execPath, [...memory.flags, join(root, 'scripts', 'serve.mjs')], {
  cwd: root,
  stdio: 'inherit',
  env: { ...memory.env, ...process.env, HOST: host, PORT: port }
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 0));
