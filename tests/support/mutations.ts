/** Faults put into the search on purpose; each must be noticed by brute force or by the verifier. */
export interface Mutation {
  readonly name: string;
  readonly file: string;
  /** Stands exactly once in the file. */
  readonly find: string;
  readonly replace: string;
}

const ROUTE = 'src/core/route';

export const MUTATIONS: readonly Mutation[] = [
  {
    name: 'turning back is allowed',
    file: `${ROUTE}/move.ts`,
    find: 'to.release < v.release;',
    replace: 'false;'
  },
  {
    name: 'poorer editions count as richer',
    file: `${ROUTE}/move.ts`,
    find: 'if (change.from === from.edition && exists && model.richer[change.from]?.[change.to])',
    replace: 'if (change.from === from.edition && exists)'
  },
  {
    name: 'empty cells lead anywhere later',
    file: `${ROUTE}/move.ts`,
    find: 'if (cells && !model.tableComplete)',
    replace: 'if (cells)'
  },
  {
    name: 'forbidden cells count as empty',
    file: `${ROUTE}/move.ts`,
    find: 'if (isForbidden(model, here.index, release.index)) continue;',
    replace: ''
  },
  {
    name: 'settling binds stepping stones too',
    file: `${ROUTE}/lay-days.ts`,
    find: 'const settled = isTarget && typeof',
    replace: 'const settled = typeof'
  },
  {
    name: 'settling is forgotten',
    file: `${ROUTE}/lay-days.ts`,
    find: 'publication + terms.goal.settlingDays : publication',
    replace: 'publication : publication'
  },
  {
    name: 'two hops share a day',
    file: `${ROUTE}/lay-days.ts`,
    find: 'day: before.last + 1, exact: before.exact',
    replace: 'day: before.last, exact: before.exact'
  },
  {
    name: 'first open days are ignored',
    file: `${ROUTE}/lay-days.ts`,
    find: 'arrives), maybe(terms, (move.hop ?? move.change)?.opens)]',
    replace: 'arrives)]'
  },
  {
    name: 'nodes do not multiply the work',
    file: `${ROUTE}/lay-days.ts`,
    find: 'const own = carefulMinutesOf(move) * terms.nodes;',
    replace: 'const own = carefulMinutesOf(move);'
  },
  {
    name: 'stays out of service are never put off',
    file: `${ROUTE}/lay-days.ts`,
    find: '> terms.goal.passDays) return',
    replace: '> terms.goal.passDays + 9999) return'
  },
  {
    name: 'last open days are ignored',
    file: `${ROUTE}/judge.ts`,
    find: "return days.last > last ? 'no'",
    replace: "return days.last > last + 9999 ? 'no'"
  },
  {
    name: 'the patch floor is ignored',
    file: `${ROUTE}/judge.ts`,
    find: "add('level', truthOf(floor[place.release]?.[place.patch] === true))",
    replace: "add('level', 'yes')"
  },
  {
    name: 'every current patch is any patch',
    file: `${ROUTE}/judge.ts`,
    find: 'if (source?.everyPatch)',
    replace: 'if (source?.everyPatch && false)'
  },
  {
    name: 'newer patches than the target are let through',
    file: `${ROUTE}/judge.ts`,
    find: 'if (source?.containedBy)',
    replace: 'if (source?.containedBy && false)'
  },
  {
    name: 'resting out of service is allowed',
    file: `${ROUTE}/judge.ts`,
    find: 'if (!terms.goal.allow.restingOutOfService) push',
    replace: 'if (terms.goal.allow.restingOutOfService) push'
  },
  {
    name: 'forbidden spending is forgotten',
    file: `${ROUTE}/judge.ts`,
    find: 'if (!terms.goal.allow.spending && found',
    replace: 'if (terms.goal.allow.spending && found'
  },
  {
    name: 'the sure run takes unknowns',
    file: `${ROUTE}/label.ts`,
    find: "f.truth === 'no' || run === 'sure')) return undefined;",
    replace: "f.truth === 'no')) return undefined;"
  },
  {
    name: 'money counts before hops',
    file: `${ROUTE}/label.ts`,
    find: '    a.hops - b.hops ||\n',
    replace: '    a.costCents - b.costCents || a.hops - b.hops ||\n'
  },
  {
    name: 'a label is beaten by a costlier one',
    file: `${ROUTE}/label.ts`,
    find: '    by.costCents <= label.costCents &&\n',
    replace: ''
  },
  {
    name: 'a way in place is beaten by a fresh install',
    file: `${ROUTE}/label.ts`,
    find: '    by.hasFresh <= label.hasFresh &&\n',
    replace: ''
  },
  {
    name: 'the highest patch is taken',
    file: `${ROUTE}/search.ts`,
    find: 'let level = opening.from.patch; level < last; level++',
    replace: 'let level = last - 1; level >= opening.from.patch; level--'
  },
  {
    name: 'waiting routes count as open today',
    file: `${ROUTE}/verdict.ts`,
    find: 'if (criteria.waits > terms.today)',
    replace: 'if (criteria.waits > terms.today + 30)'
  },
  {
    name: 'the dearest right is used',
    file: 'src/core/right/find-use.ts',
    find: 'rankOf(a, maySpend) - rankOf(b, maySpend) ||',
    replace: 'rankOf(b, maySpend) - rankOf(a, maySpend) ||'
  },
  {
    name: 'a lapsed right still counts',
    file: 'src/core/right/find-use.ts',
    find: "return on.first > until ? 'no'",
    replace: "return on.first > until + 9999 ? 'no'"
  },
  {
    name: 'rights by agreement are had by everybody',
    file: 'src/core/right/find-use.ts',
    find: 'if (needsHolding && !terms.held',
    replace: 'if (false && !terms.held'
  }
];
