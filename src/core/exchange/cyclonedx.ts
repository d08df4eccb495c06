import { z } from 'zod';
import type { Catalogue } from '../catalogue';
import { parseDay } from '../date';
import type { SystemCompanion } from '../estate';
import { fail, type Result, succeed } from '../kit';
import { foldText } from '../version';
import { clip, type MachineRecord } from './machine-record';
import { parseJson } from './workspace-file';
import { issuesOfZod } from './zod-issues';

/** As much of CycloneDX 1.4 to 1.6 as tells of machines and what runs on them; everything else is passed over. */
interface Component {
  readonly type?: string | undefined;
  readonly name?: string | undefined;
  readonly version?: string | undefined;
  readonly publisher?: string | undefined;
  readonly cpe?: string | undefined;
  readonly purl?: string | undefined;
  readonly components?: readonly Component[] | undefined;
}
const word = z.string().max(5000).optional();
const component: z.ZodType<Component> = z.lazy(() =>
  z.object({
    type: word,
    name: word,
    version: word,
    publisher: word,
    cpe: word,
    purl: word,
    components: z.array(component).max(100_000).optional()
  })
);
const bom = z.object({
  bomFormat: z.literal('CycloneDX'),
  specVersion: z.string(),
  metadata: z.object({ timestamp: word, component: component.optional() }).optional(),
  components: z.array(component).max(200_000).optional()
});

const VERSIONS = new Set(['1.4', '1.5', '1.6']);
const MAX_COMPANIONS = 2000;

/** Whether a text says so in its first 100,000 characters; it need not be a good one. */
export const looksLikeCycloneDx = (text: string): boolean =>
  /"bomFormat"\s*:\s*"CycloneDX"/.test(text.slice(0, 100_000));

/**
 * The machines of a CycloneDX file (JSON, 1.4 to 1.6; ECMA-424). A machine is the component the file is about, and every
 * component of type device with parts of its own or a version. Its operating system is what it runs; without one, a
 * firmware, an application the catalogue has, or the device's own version is. Other applications and firmware whose names
 * the catalogue has are systems of their own; the rest come along as companions.
 */
export function parseCycloneDx(
  text: string,
  catalogue: Catalogue,
  fallback: string
): Result<MachineRecord[]> {
  const json = parseJson(text);
  if (!json.ok) return json;
  const parsed = bom.safeParse(json.value);
  if (!parsed.success) return fail(...issuesOfZod(parsed.error, json.value));
  const { specVersion, metadata, components = [] } = parsed.data;
  if (!VERSIONS.has(specVersion)) return fail({ code: 'other-version', detail: specVersion });
  const known = new Set(
    catalogue.products.flatMap((p) => [p.name, p.id, ...(p.aliases ?? [])].map(foldText))
  );
  const day = (metadata?.timestamp ?? '').slice(0, 10);
  const observed = parseDay(day) === undefined ? undefined : day;
  const records: MachineRecord[] = [];
  const root: Component = {
    type: 'device',
    ...metadata?.component,
    components: [...(metadata?.component?.components ?? []), ...components]
  };
  readMachine(root, clip(metadata?.component?.name, 300) ?? fallback, { known, observed, records });
  return records.length === 0 ? fail({ code: 'no-machines' }) : succeed(records);
}

interface Reading {
  readonly known: ReadonlySet<string>;
  readonly observed: string | undefined;
  readonly records: MachineRecord[];
}

function readMachine(machine: Component, name: string, reading: Reading): void {
  const parts = machine.components ?? [];
  const devices = parts.filter((p) => p.type === 'device');
  const inside = parts.filter((p) => p.type !== 'device' && p.name !== undefined);
  const isKnown = (p: Component): boolean => reading.known.has(foldText(p.name ?? ''));
  const systems = inside.filter((p) => p.type === 'operating-system');
  const others = inside.filter((p) => p.type === 'firmware' || p.type === 'application');
  const own = others.filter(isKnown);
  const [runs, ...more] = [...systems, ...own];
  const plain = others.filter((p) => !own.includes(p));
  const itself = machine.version !== undefined && machine.name !== undefined ? machine : undefined;
  const carried = runs ?? (isKnown(machine) ? itself : plain.find((p) => p.type === 'firmware')) ?? itself;
  if (carried && !(carried === machine && devices.length > 0 && !isKnown(machine)))
    reading.records.push(
      recordOf(
        carried,
        name,
        reading,
        [...plain, ...devices.filter(isPart)].filter((p) => p !== carried)
      )
    );
  for (const part of more) reading.records.push(recordOf(part, `${name} ${part.name ?? ''}`, reading, []));
  for (const device of devices)
    if (!isPart(device)) readMachine(device, clip(device.name, 300) ?? name, reading);
}

/** A device that is merely part of another: nothing runs on it, as far as the file tells. */
const isPart = (device: Component): boolean =>
  (device.components ?? []).length === 0 && device.version === undefined;

function recordOf(
  runs: Component,
  name: string,
  { observed, records }: Reading,
  companions: readonly Component[]
): MachineRecord {
  const version = clip(runs.version, 300);
  const purl = clip(runs.purl);
  const cpe = clip(runs.cpe);
  const listed = companions.slice(0, MAX_COMPANIONS).flatMap((c): SystemCompanion[] => {
    const title = clip(c.name, 300);
    const own = clip(c.version, 300);
    return title === undefined ? [] : [{ name: title, ...(own === undefined ? {} : { version: own }) }];
  });
  return {
    row: records.length + 1,
    name: name.slice(0, 300),
    texts: { product: clip(runs.name, 300) ?? '', ...(version === undefined ? {} : { version }) },
    ...(observed === undefined ? {} : { observed }),
    ...(purl === undefined ? {} : { purl }),
    ...(cpe === undefined ? {} : { cpe }),
    ...(listed.length > 0 ? { companions: listed } : {}),
    remarks: []
  };
}
