import type { Measure } from './measure';

/** What a fact outlives: a fresh install keeps what is hardware or firmware, and nothing else. */
export type Keeper = 'hardware' | 'firmware' | 'software' | 'paper';

/** A kind of fact that conditions may ask of a system. */
export interface FactKind {
  readonly id: string;
  readonly name: string;
  readonly measure: Measure;
  readonly keptBy: Keeper;
  /** Days after which an observation is stale. */
  readonly shelfLifeDays: number;
}

type Row = readonly [id: string, name: string, measure: Measure, keptBy: Keeper, shelfLifeDays: number];

const kind = (...[id, name, measure, keptBy, shelfLifeDays]: Row): FactKind => ({
  id,
  name,
  measure,
  keptBy,
  shelfLifeDays
});

const YEAR = 365;

/** The kinds every catalogue may use without declaring them. */
const FACT_KINDS: readonly FactKind[] = [
  kind('memory', 'memory', 'memory', 'hardware', YEAR),
  kind('disk.total', 'whole disk', 'disk', 'hardware', YEAR),
  kind('disk.free.system', 'free on the system drive', 'disk', 'software', 14),
  kind('disk.free.download', 'free where downloads go', 'disk', 'software', 14),
  kind('disk.free.working', 'free for working files', 'disk', 'software', 14),
  kind('drive.kind', 'kind of drive', 'text', 'hardware', YEAR),
  kind('processor.model', 'processor', 'text', 'hardware', 3 * YEAR),
  kind('processor.speed', 'processor speed', 'frequency', 'hardware', 3 * YEAR),
  kind('processor.cores', 'processor cores', 'count', 'hardware', 3 * YEAR),
  kind('processor.bits', 'word size', 'bits', 'hardware', 3 * YEAR),
  kind('graphics.model', 'graphics', 'text', 'hardware', 3 * YEAR),
  kind('graphics.memory', 'graphics memory', 'memory', 'hardware', YEAR),
  kind('graphics.level', 'graphics level', 'count', 'hardware', YEAR),
  kind('display.size', 'display', 'text', 'hardware', 3 * YEAR),
  kind('display.width', 'display width', 'pixels', 'hardware', YEAR),
  kind('display.height', 'display height', 'pixels', 'hardware', YEAR),
  kind('firmware.kind', 'kind of firmware', 'text', 'firmware', YEAR),
  kind('firmware.level', 'firmware level', 'count', 'firmware', YEAR),
  kind('firmware.checked-start', 'checked start', 'switch', 'firmware', YEAR),
  kind('security-part', 'security part', 'switch', 'firmware', YEAR),
  kind('security-part.generation', 'generation of the security part', 'count', 'hardware', 3 * YEAR),
  kind('network.at-set-up', 'network at set-up', 'switch', 'paper', 90),
  kind('account.at-set-up', 'account at set-up', 'switch', 'paper', 90),
  kind('network.kind', 'network part', 'text', 'hardware', YEAR),
  kind('model', 'model', 'text', 'hardware', 3 * YEAR),
  kind('model.year', 'model year', 'year', 'hardware', 3 * YEAR),
  kind('activated', 'activated', 'switch', 'software', 180),
  kind('mains-power', 'on mains power', 'switch', 'paper', 7),
  kind('clock.right', 'date and time right', 'switch', 'software', 7),
  kind('backup.finished', 'back-up finished on', 'day', 'paper', 7),
  kind('backup.restored', 'restore proved on', 'day', 'paper', 180),
  kind('certificate.ends', 'certificate ends on', 'day', 'software', 90),
  kind('grace.ends', 'activation grace ends on', 'day', 'software', 30),
  kind('support.ends', 'support ends on, by its own record', 'day', 'software', 180),
  kind('edition', 'edition', 'text', 'software', 180),
  kind('architecture', 'architecture', 'text', 'software', 3 * YEAR)
];

/** Families of facts named by whoever writes the catalogue: `setting.remote-login`, `companion.badge-reader`. */
const FAMILIES: readonly {
  readonly prefix: string;
  readonly name: string;
  readonly measure: Measure;
  readonly keptBy: Keeper;
  readonly shelfLifeDays: number;
}[] = [
  { prefix: 'setting.', name: 'setting', measure: 'switch', keptBy: 'software', shelfLifeDays: 90 },
  { prefix: 'companion.', name: 'companion', measure: 'text', keptBy: 'software', shelfLifeDays: 180 },
  // An offer is made to a machine, whatever is set up on it.
  { prefix: 'offer.', name: 'offered', measure: 'switch', keptBy: 'hardware', shelfLifeDays: 14 },
  // What a list says and nobody has a kind for yet: taken as it stands.
  { prefix: 'own.', name: 'own', measure: 'text', keptBy: 'paper', shelfLifeDays: YEAR },
  { prefix: 'access.', name: 'access', measure: 'switch', keptBy: 'paper', shelfLifeDays: 30 }
];

/** The kinds in force: the built-in ones, those a catalogue declares (which win), and the families. */
export class FactKinds {
  readonly #declared: ReadonlyMap<string, FactKind>;

  constructor(declared: readonly FactKind[] = []) {
    this.#declared = new Map([...FACT_KINDS, ...declared].map((k) => [k.id, k]));
  }

  find(id: string): FactKind | undefined {
    const declared = this.#declared.get(id);
    if (declared) return declared;
    const family = FAMILIES.find((f) => id.startsWith(f.prefix) && id.length > f.prefix.length);
    return family && { ...family, id, name: `${family.name} ${id.slice(family.prefix.length)}` };
  }

  all(): FactKind[] {
    return [...this.#declared.values()];
  }
}
