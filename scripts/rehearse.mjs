// `npm run rehearse`: plays a night on the demo with stand-ins for three machines, against the real screens.
import { spawnSync } from 'node:child_process';
import { build, installChromium, installPackages, root } from './install.mjs';

installPackages();
const chromium = installChromium();
build();
const { status } = spawnSync('npx', ['--no-install', 'playwright', 'test', 'rehearsal', '--reporter=line'], {
  cwd: root,
  stdio: 'inherit',
  env: { ...process.env, CHROMIUM: chromium }
});
process.exit(status ?? 1);
