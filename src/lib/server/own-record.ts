import { readFileSync, statfsSync } from 'node:fs';
import { arch, cpus, hostname, totalmem } from 'node:os';
import { parseOsRelease, RECORD_HEAD } from '$core/exchange';

const ADDRESSES = new Set(['127.0.0.1', '::1', '::ffff:127.0.0.1']);
const HOSTS = new Set(['127.0.0.1', 'localhost', '[::1]']);
/** What those who pass requests on put in; every name that begins with `x-forwarded` besides. */
const PASSED_ON = [
  'forwarded',
  'via',
  'x-real-ip',
  'x-client-ip',
  'x-cluster-client-ip',
  'true-client-ip',
  'cf-connecting-ip',
  'cf-ray',
  'fastly-client-ip',
  'x-original-forwarded-for',
  'x-envoy-external-address'
];

/** What a request tells of where it came from. */
export interface Caller {
  readonly address: string;
  /** Host and port of the address that was asked for. */
  readonly host: string;
  readonly headers: Headers;
}

/**
 * True where browser and server are one machine: the connection is loopback, the address in the bar is loopback too (a
 * name that somebody lets point here is not), nobody passed the request on, and no other site sent it.
 */
export function isOwnMachine({ address, host, headers }: Caller): boolean {
  const site = headers.get('sec-fetch-site');
  return (
    ADDRESSES.has(address) &&
    HOSTS.has(host.replace(/:\d+$/, '')) &&
    ![...headers.keys()].some((name) => name.startsWith('x-forwarded') || PASSED_ON.includes(name)) &&
    (site === null || site === 'same-origin' || site === 'none') &&
    ['origin', 'referer'].every((name) => isFrom(headers.get(name), host))
  );
}

/** Whether a page of this server is named, or none. */
const isFrom = (named: string | null, host: string): boolean =>
  named === null || (URL.canParse(named) && new URL(named).host === host);

/** The record of the machine this process runs on, as the collector would print it. Reads, keeps nothing. */
export function ownRecord(today: string): string {
  const release = readFirst(['/etc/os-release', '/usr/lib/os-release']);
  const parsed = release === undefined ? undefined : parseOsRelease(release, hostname());
  const own = parsed?.ok ? parsed.value[0] : undefined;
  const disk = readDisk();
  const support = own?.facts?.['support.ends'];
  const processors = cpus();
  const lines: [string, string | number | undefined][] = [
    ['name', hostname()],
    ['read on', today],
    ['product', own?.texts.product ?? process.platform],
    ['version', own?.texts.version],
    ['edition', own?.texts.edition],
    ['build', own?.texts.build],
    ['architecture', arch()],
    ['cpe', own?.cpe],
    ['support.ends', support && 'value' in support ? String(support.value) : undefined],
    ['memory', `${Math.round(totalmem() / 2 ** 20)} MB`],
    ['processor.model', processors[0]?.model.trim()],
    ['processor.cores', processors.length === 0 ? undefined : processors.length],
    ['disk.total', disk && `${disk.total} GB`],
    ['disk.free.system', disk && `${disk.free} GB`]
  ];
  return [
    `${RECORD_HEAD} 1`,
    ...lines.flatMap(([label, value]) =>
      value === undefined || value === '' ? [] : [`${label}: ${String(value).replace(/\s+/g, ' ')}`]
    ),
    ''
  ].join('\n');
}

function readFirst(paths: readonly string[]): string | undefined {
  for (const path of paths)
    try {
      return readFileSync(path, 'utf8').slice(0, 65_536);
    } catch {
      // Not every system has every place.
    }
  return undefined;
}

function readDisk(): { total: number; free: number } | undefined {
  try {
    const { bsize, blocks, bavail } = statfsSync('/');
    return { total: Math.round((bsize * blocks) / 1e9), free: Math.round((bsize * bavail) / 1e9) };
  } catch {
    return undefined;
  }
}
