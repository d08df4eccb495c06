import type { Companion } from '../schema';
import { freeId } from '../sketch/sketch';
import { cleanCell } from './cells';
import { type Places, placesOfProduct, rangeOfWords, releasesInRange } from './places';
import {
  cellOf,
  isCalled,
  LEFT_OUT,
  Once,
  rolesByHeading,
  type TableChange,
  type TableGround,
  type TableReader,
  type TableReading,
  withEntry
} from './reader';

type Fare = Companion['fares'][number];

const VERDICTS: readonly (readonly [RegExp, Fare['verdict']])[] = [
  [/remove|uninstall|take (it )?(off|out)/i, 'remove first'],
  [/re-?install|install again/i, 'reinstall'],
  [
    /\b(not|no|never|un\w*|in\w*compatible|fails?|broken|dropped|ends?)\b|n't\b|^[-–—✗✘✕×]$|^n$/i,
    'does not work'
  ],
  [/partly|partial|limited|with (less|limits|restrictions)|some|reduced|except/i, 'with less'],
  [
    /update|newer|upgrade|patch|driver|with version|needs|requires|^(>=?|≥|v|from )?\s*\d+(\.\d+)*\+?( or (later|newer|higher))?$/i,
    'after update'
  ],
  [/^(yes|y|ok|works?|compatible|supported|full(y)?|certified|tested|[✓✔●•☑√])(\b|$|\W)/i, 'works']
];
const KIND_WORDS: readonly (readonly [RegExp, Companion['kind']])[] = [
  [/driver/i, 'driver'],
  [/extension|plug.?in|add.?(on|in)|module/i, 'extension'],
  [/source|repositor/i, 'third-party source'],
  [/application|program|software|app\b/i, 'application'],
  [/device|printer|card|hardware|part|reader|scanner/i, 'device']
];

/** What the things of a table are, from its title and headings. */
export const companionKindOf = (text: string): Companion['kind'] =>
  KIND_WORDS.find(([said]) => said.test(text))?.[1] ?? 'application';

/** A version a cell names: `needs 3.1 or later`. */
const versionIn = (cell: string): string | undefined =>
  /(?:^|\s|v|≥|>=?)(\d+(?:\.\d+)+|\d+)\b/i.exec(cleanCell(cell))?.[1];

const NAME = 'name';
const RELEASE = 'release';

/** Devices, applications and the like: how each fares on which release, as a grid along releases or a row each. */
export const companionsReader: TableReader = {
  roles: [
    NAME,
    RELEASE,
    'how it fares',
    'its own version',
    'what is lost',
    'fares on this release',
    LEFT_OUT
  ],
  meanings: () => [...new Set(VERDICTS.map(([, v]) => v)), LEFT_OUT],
  suggestRoles({ head }, ground) {
    const places = placesOfProduct(ground.product);
    const roles = rolesByHeading(head, [
      [NAME, /name|device|application|extension|program|driver|product|model|source|plug|software/i],
      ['how it fares', /works|compat|support|status|verdict|result|fares/i],
      ['its own version', /version|needs|own/i],
      ['what is lost', /lost|limit|note|remark|less/i]
    ]);
    head.forEach((h, i) => {
      if (roles[i] !== NAME && places.find(h) !== undefined) roles[i] = 'fares on this release';
    });
    if (!roles.includes(NAME)) roles[0] = NAME;
    const on = head.findIndex(
      (h, i) =>
        roles[i] !== NAME &&
        /\b(on|with|release|target|for)\b/i.test(h) &&
        roles[i] !== 'fares on this release' &&
        roles[i] !== 'how it fares'
    );
    if (on >= 0 && !roles.includes('fares on this release')) roles[on] = RELEASE;
    return roles;
  },
  words: (reading) => [...new Set(saidOf(reading).map((s) => s.word))],
  suggestMeaning: (word) =>
    word === '' ? LEFT_OUT : (VERDICTS.find(([said]) => said.test(word))?.[1] ?? LEFT_OUT),
  take(reading, ground) {
    const places = placesOfProduct(ground.product);
    const left: number[] = [];
    const unread: { of: string; cell: string }[] = [];
    const changes: TableChange[] = [];
    let companions = ground.product.companions ?? [];
    const said = new Map<number, ReturnType<typeof saidOf>[number][]>();
    for (const one of saidOf(reading)) {
      const own = said.get(one.row);
      if (own) own.push(one);
      else said.set(one.row, [one]);
    }
    const once = new Once();
    reading.table.rows.forEach((row, i) => {
      const name = cleanCell(cellOf(reading, row, NAME));
      const own = said.get(i) ?? [];
      if (name === '' || own.length === 0) return void left.push(i);
      for (const { on, word } of own) {
        const verdict = (reading.meanings.get(word) ?? companionsReader.suggestMeaning(word, ground)) as
          Fare['verdict'] | typeof LEFT_OUT;
        if (verdict === LEFT_OUT) continue;
        const at = rangeOfWords(places, on);
        if (at === undefined) {
          unread.push({ of: name, cell: on });
          continue;
        }
        // Spelt otherwise further down it is the same one, and what was said of it first stands.
        const known = companions.find((c) => isCalled(c, name));
        if (known && !once.isFirst(known.id, at)) continue;
        const version = cellOf(reading, row, 'its own version');
        const ownVersion = verdict === 'after update' ? version || versionIn(word) : undefined;
        const loses = cellOf(reading, row, 'what is lost');
        const fare: Fare = {
          at,
          verdict,
          ...(ownVersion ? { ownVersion: ownVersion.slice(0, 300) } : {}),
          ...(loses && verdict !== 'works' ? { loses: loses.slice(0, 300) } : {}),
          source: reading.source
        };
        const put = putFare(companions, { name, fare, on }, { reading, places, ground });
        companions = put.list;
        changes.push(put.change);
        const made = known ?? companions.find((c) => isCalled(c, name));
        if (!known && made) once.isFirst(made.id, at);
      }
    });
    return {
      ...ground,
      product: { ...ground.product, ...(companions.length > 0 ? { companions } : {}) },
      changes,
      left,
      unread
    };
  }
};

/** What each row says, of which releases: along its columns, or in its own cells. */
function saidOf(
  reading: TableReading
): readonly { readonly row: number; readonly on: string; readonly word: string }[] {
  const { head, rows } = reading.table;
  const along = reading.roles.flatMap((r, i) => (r === 'fares on this release' ? [i] : []));
  return rows.flatMap((cells, row) =>
    along.length > 0
      ? along
          .map((i) => ({ row, on: head[i] ?? '', word: cleanCell(cells[i] ?? '') }))
          .filter((s) => s.word !== '')
      : [
          {
            row,
            on: cellOf(reading, cells, RELEASE) || (reading.about.at ?? ''),
            word: cleanCell(
              cellOf(reading, cells, 'how it fares') || cellOf(reading, cells, 'its own version')
            )
          }
        ].filter((s) => s.on !== '')
  );
}

function putFare(
  companions: readonly Companion[],
  { name, fare, on }: { readonly name: string; readonly fare: Fare; readonly on: string },
  {
    reading,
    places,
    ground
  }: {
    readonly reading: TableReading;
    readonly places: Places;
    readonly ground: TableGround;
  }
): { readonly list: Companion[]; readonly change: TableChange } {
  const known = companions.find((c) => isCalled(c, name));
  const place = places.find(on);
  const told = (kind: TableChange['kind'], before?: string): TableChange => ({
    kind,
    what: name,
    details: [{ role: on, after: fare.verdict, ...(before === undefined ? {} : { before }) }],
    ...(place === undefined ? {} : { release: places.releaseOf(place) })
  });
  if (!known) {
    const kind =
      reading.about.companion ?? companionKindOf(`${reading.title} ${reading.table.head.join(' ')}`);
    const made = {
      id: freeId(name, new Set(companions.map((c) => c.id))),
      name,
      kind,
      fares: [fare],
      source: reading.source
    };
    return { list: [...companions, made], change: told('new') };
  }
  const releases = releasesInRange(ground.product, fare.at);
  const standing = releases.map((r) =>
    known.fares.filter((f) => releasesInRange(ground.product, f.at).includes(r))
  );
  const isSaid = (f: Fare): boolean =>
    f.verdict === fare.verdict && (fare.ownVersion === undefined || f.ownVersion === fare.ownVersion);
  if (standing.every((fares) => fares.some(isSaid))) return { list: [...companions], change: told('same') };
  const silent = releases.filter((_, i) => standing[i]?.length === 0);
  const before = standing.flat().find((f) => !isSaid(f))?.verdict;
  if (silent.length === releases.length)
    return { list: withEntry(companions, { ...known, fares: [...known.fares, fare] }), change: told('new') };
  // What the same table said before of just these releases is moved; what others say stays.
  const own = known.fares.findIndex(
    (f) => f.source === reading.source && f.at === fare.at && f.when === undefined
  );
  if (own < 0) return { list: [...companions], change: told('against', before) };
  const fares = known.fares.map((f, i) => (i === own ? { ...f, ...fare } : f));
  return {
    list: withEntry(companions, { ...known, fares }),
    change: told('changed', known.fares[own]?.verdict)
  };
}
