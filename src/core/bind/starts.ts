import { BASE, type Reading, type System } from '../estate';
import { NOTHING, type Place, type ProductModel } from '../compile';

/** Most starts a system with unknown readings is planned from. */
const MAX_STARTS = 2000;

/** The ids a reading leaves open, out of all there are: one when decided, several or all otherwise. */
function candidates(reading: Reading, all: readonly string[]): readonly string[] {
  if ('is' in reading) return all.includes(reading.is) ? [reading.is] : [];
  return 'oneOf' in reading ? all.filter((id) => reading.oneOf.includes(id)) : all;
}

/**
 * Every place a system may stand on: candidates where some are named, else all the product has.
 * In order of sequence, patch level, edition, architecture. A system counts as its lowest node. A bare or candidate
 * machine stands on nothing. Empty when the readings name nothing of this product.
 */
export function startsOf(model: ProductModel, given: System): Place[] {
  const system = asLowest(model, given);
  if (system.stage === 'bare' || system.stage === 'candidate') return [nothingOn(model, system)];
  const starts: Place[] = [];
  const releases = candidates(
    system.release,
    model.releases.map((r) => r.release.id)
  );
  for (const id of releases) {
    const release = model.releases[model.sequence.indexById.get(id) ?? -1];
    if (!release) continue;
    const editions = candidates(
      system.edition,
      release.editions.map((e) => model.editions[e] ?? '')
    );
    const architectures = candidates(
      system.architecture,
      release.architectures.map((a) => model.architectures[a] ?? '')
    );
    for (const patch of candidates(
      system.patch,
      release.patches.map((p) => p.id)
    ))
      for (const edition of editions)
        for (const architecture of architectures)
          starts.push({
            release: release.index,
            patch: release.patches.findIndex((p) => p.id === patch),
            edition: model.editions.indexOf(edition),
            architecture: model.architectures.indexOf(architecture)
          });
  }
  return starts.slice(0, MAX_STARTS);
}

/** A system whose nodes stand on releases of their own as the lowest of them; one node nobody has read leaves it open. */
function asLowest({ sequence, releases }: ProductModel, system: System): System {
  const own = (system.members ?? []).filter((m) => m.release !== undefined);
  if (own.length === 0) return system;
  const rest = own.length < (system.members ?? []).length ? [system] : [];
  const readings = [...own.map((m) => ({ release: m.release as Reading, patch: m.patch ?? BASE })), ...rest];
  const open = readings.find(({ release, patch }) => !('is' in release) || !('is' in patch));
  if (open) return { ...system, release: open.release, patch: open.patch };
  const rank = ({ release, patch }: Pick<System, 'release' | 'patch'>): number => {
    const at = 'is' in release ? (sequence.indexById.get(release.is) ?? -1) : -1;
    const level = 'is' in patch ? releases[at]?.patches.findIndex((p) => p.id === patch.is) : 0;
    return at * 10_000 + (level ?? 0);
  };
  const [lowest] = [...readings].sort((a, b) => rank(a) - rank(b));
  return { ...system, ...(lowest ? { release: lowest.release, patch: lowest.patch } : {}) };
}

/** A machine on which nothing is installed; a known edition or architecture is where its goal starts from. */
function nothingOn(model: ProductModel, { edition, architecture }: System): Place {
  const placeOf = (ids: readonly string[], reading: Reading): number =>
    'is' in reading ? ids.indexOf(reading.is) : ids.length === 1 ? 0 : -1;
  return {
    release: NOTHING,
    patch: 0,
    edition: placeOf(model.editions, edition),
    architecture: placeOf(model.architectures, architecture)
  };
}
