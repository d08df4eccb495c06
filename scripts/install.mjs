// Installs what a fresh machine is missing: the npm packages and, for tests, Debian's Chromium. Node's own modules only.
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const stamp = join(root, 'node_modules', '.installed-for');
const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
const run = (command, args) => execFileSync(command, args, { cwd: root, stdio: 'inherit', env });

/** Installs the packages of package-lock.json unless they already are. */
export function installPackages() {
  const wanted = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  console.log('Installing packages (once)...');
  // No package builds or runs anything while it is installed: what they would is an optimisation at most.
  // Not `npm ci`: it insists on entries for other platforms' optional binaries, which the lock file may lack.
  run('npm', ['install', '--no-save', '--no-audit', '--no-fund', '--ignore-scripts']);
  writeFileSync(stamp, wanted);
}

/** Where Chromium is, installing Debian's when there is none. */
export function installChromium() {
  const places = [
    process.env.CHROMIUM,
    '/usr/bin/chromium',
    '/usr/bin/chromium-browser',
    '/usr/bin/google-chrome'
  ];
  const found = places.find((p) => p && existsSync(p));
  if (found) return found;
  console.log('Installing Chromium (once)...');
  aptInstall(['chromium']);
  return '/usr/bin/chromium';
}

function aptInstall(names) {
  const sudo = process.getuid?.() === 0 ? [] : ['sudo'];
  const apt = (...args) => run([...sudo, 'apt-get'][0], [...sudo, 'apt-get', ...args].slice(1));
  apt('update');
  apt('install', '-y', '--no-install-recommends', ...names);
}

/** Debian's SSH server and SNMP agent, which the tests ask; they run on high ports with configurations of their own. */
export function installServers() {
  const wanted = {
    'openssh-server': '/usr/sbin/sshd',
    'openssh-client': '/usr/bin/ssh-keygen',
    snmpd: '/usr/sbin/snmpd'
  };
  const missing = Object.keys(wanted).filter((name) => !existsSync(wanted[name]));
  if (missing.length === 0) return;
  console.log(`Installing ${missing.join(', ')} (once)...`);
  aptInstall(missing);
}

/** Builds the application when its sources are newer than the last build. */
export function build() {
  const list = execFileSync(
    'git',
    [
      'ls-files',
      '-cos',
      '--exclude-standard',
      'src',
      'static',
      'demo',
      'package-lock.json',
      'svelte.config.js',
      'vite.config.ts'
    ],
    { cwd: root, encoding: 'utf8' }
  );
  const hash = createHash('sha256');
  for (const line of list.split('\n').filter(Boolean)) {
    const file = join(root, line.split('\t').pop() ?? '');
    if (existsSync(file)) hash.update(line).update(readFileSync(file));
  }
  const wanted = hash.digest('hex');
  const mark = join(root, 'build', '.built-from');
  if (existsSync(mark) && readFileSync(mark, 'utf8') === wanted) return;
  console.log('Building...');
  run('npx', ['--no-install', 'vite', 'build', '--logLevel', 'warn']);
  run('npm', ['run', '--silent', 'build:worker']);
  writeFileSync(mark, wanted);
}
