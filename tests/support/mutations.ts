/** Faults put into the search on purpose; each must be noticed by brute force or by the verifier. */
export interface Mutation {
  readonly name: string;
  /** The function it is put into, wherever in the core that stands: moving it keeps the fault. */
  readonly in: string;
  /** Stands exactly once in the function; white space is the formatter's. */
  readonly find: string;
  readonly replace: string;
  /** The worlds it must show in; those without a calendar where it does not say. */
  readonly worlds?: 'calendar';
  /** It shows only in what is chosen on one day after another. */
  readonly days?: true;
}

export const MUTATIONS: readonly Mutation[] = [
  {
    name: 'turning back is allowed',
    in: 'turnsBack',
    find: 'to.release < v.release;',
    replace: 'false;'
  },
  {
    name: 'who comes sooner ends no worse',
    in: 'hasTurningRights',
    find: 'const turns = ends ||',
    replace: 'const turns = ends && rights.length === 0 &&'
  },
  {
    name: 'poorer editions count as richer',
    in: 'findOpenings',
    find: 'if (change.from === from.edition && exists && model.richer[change.from]?.[change.to])',
    replace: 'if (change.from === from.edition && exists)'
  },
  {
    name: 'empty cells lead anywhere later',
    in: 'findOpenings',
    find: 'if (cells && !model.tableComplete)',
    replace: 'if (cells)'
  },
  {
    name: 'forbidden cells count as empty',
    in: 'pushEmptyCells',
    find: 'if (isForbidden(model, here.index, release.index)) continue;',
    replace: ''
  },
  {
    name: 'settling binds stepping stones too',
    in: 'layMove',
    find: '(isTarget ? terms.settled : terms.publication)',
    replace: 'terms.settled'
  },
  {
    name: 'settling is forgotten',
    in: 'layMove',
    find: '(isTarget ? terms.settled : terms.publication)',
    replace: 'terms.publication'
  },
  {
    name: 'the first patch level is not waited for',
    in: 'settledOn',
    find: 'Math.max(settled, Math.min(...known))',
    replace: 'settled'
  },
  {
    name: 'two hops share a day',
    in: 'freeBehind',
    find: ': hop.last + 1) :',
    replace: ': hop.last) :'
  },
  {
    name: 'first open days are ignored',
    in: 'layMove',
    find: 'wait(maybe(terms, (move.hop ?? move.change)?.opens));',
    replace: ''
  },
  {
    name: 'nodes do not multiply the work',
    in: 'placeMove',
    find: 'const own = carefulMinutesOf(move) * terms.nodes + move.asked.carefulMinutes;',
    replace: 'const own = carefulMinutesOf(move) + move.asked.carefulMinutes;'
  },
  {
    name: 'stays out of service are never put off',
    in: 'overstayAt',
    find: '> terms.goal.passDays) {',
    replace: '> terms.goal.passDays + 9999) {'
  },
  {
    name: 'last open days are ignored',
    in: 'isByEnd',
    find: "return days.last > last ? 'no'",
    replace: "return days.last > last + 9999 ? 'no'"
  },
  {
    name: 'the patch floor is ignored',
    in: 'hopModel',
    find: '{ levels: tabulateRange(scope.sequence, rangeOf(hop.levels)) }',
    replace: '{}'
  },
  {
    name: 'every current patch is any patch',
    in: 'judgeLevels',
    find: 'if (source?.everyPatch)',
    replace: 'if (source?.everyPatch && false)'
  },
  {
    name: 'newer patches than the target are let through',
    in: 'judgeLevels',
    find: 'if (source?.containedBy)',
    replace: 'if (source?.containedBy && false)'
  },
  {
    name: 'resting out of service is allowed',
    in: 'judgeRest',
    find: 'if (!terms.goal.allow.restingOutOfService) push',
    replace: 'if (terms.goal.allow.restingOutOfService) push'
  },
  {
    name: 'forbidden spending is forgotten',
    in: 'judgeRight',
    find: "if (!terms.goal.allow.spending) add('spending'",
    replace: "if (terms.goal.allow.spending) add('spending'"
  },
  {
    name: 'the limit on spending is looked at step by step',
    in: 'judgeBudget',
    find: 'const sums = moves.slice(0, at + 1)',
    replace: 'const sums = moves.slice(at, at + 1)'
  },
  {
    name: 'a right is in hand at once',
    in: 'awaitRight',
    find: 'const comes = terms.leadsFrom +',
    replace: 'const comes = terms.leadsFrom + 0 *'
  },
  {
    name: 'a right that needs no lead meanwhile is passed over',
    in: 'awaitRight',
    find: 'days.at ? days.hop.first + 1 : Math.min(comes, nextTurn(terms, days))',
    replace: 'comes'
  },
  {
    name: 'the way back needs no room',
    worlds: 'calendar',
    in: 'place',
    find: 'return begin + minutes + backs <= occurrence.minutes',
    replace: 'return begin + minutes <= occurrence.minutes'
  },
  {
    name: 'ways back of earlier blocks of a night are forgotten',
    worlds: 'calendar',
    in: 'place',
    find: 'lay(behind.occurrence, behind.end, behind.back + back)',
    replace: 'lay(behind.occurrence, behind.end, back)'
  },
  {
    name: 'freezes leave their nights open',
    worlds: 'calendar',
    in: '#chunk',
    find: '!this.freezes.some(',
    replace: 'this.freezes.length >= 0 || !this.freezes.some('
  },
  {
    name: 'a night begins before what is waited for',
    worlds: 'calendar',
    in: 'layInWindows',
    find: 'const within: Within = { from: earliest.day, until,',
    replace: 'const within: Within = { from: earliest.day - 1, until,'
  },
  {
    name: 'a block ends on the day it begins',
    worlds: 'calendar',
    in: 'daysOf',
    find: 'last: Calendar.dayAt(at.occurrence, at.end),',
    replace: 'last: at.occurrence.day,'
  },
  {
    name: 'a day too few is watched',
    worlds: 'calendar',
    in: 'freeBehind',
    find: ': watched + 1;',
    replace: ': watched;'
  },
  {
    name: 'nodes go one by one where nothing allows it',
    worlds: 'calendar',
    in: 'blockOf',
    find: 'nodes: move.hop?.hop.nodeByNode ? nodes : 1',
    replace: 'nodes'
  },
  {
    name: 'every node takes as long as all of them',
    worlds: 'calendar',
    in: 'partOf',
    find: 'Math.ceil((minutes * (node + 1)) / nodes) -',
    replace: 'minutes + 0 *'
  },
  {
    name: 'the last day of a freeze is open',
    worlds: 'calendar',
    in: 'freeDay',
    find: 'day = freeze.last + 1;',
    replace: 'day = freeze.last;'
  },
  {
    name: 'the sure run takes unknowns',
    in: 'restsOnOf',
    find: "if (mode === 'sure') return undefined;",
    replace: "if (mode === 'sure' && findings.some((f) => f.truth === 'no')) return undefined;"
  },
  {
    name: 'money counts before hops',
    in: 'compareByPreference',
    find: 'a.hops - b.hops || compareAmounts(a, b) ||',
    replace: 'compareAmounts(a, b) || a.hops - b.hops ||'
  },
  {
    name: 'a label is beaten by a costlier one',
    in: 'isNoMore',
    find: 'a.costCents <= b.costCents &&',
    replace: ''
  },
  {
    name: 'a way in place is beaten by a fresh install',
    in: 'isNoWorse',
    find: '    by.hasFresh <= label.hasFresh &&\n',
    replace: ''
  },
  {
    name: 'the highest patch is taken',
    in: '#admitLevels',
    find: 'for (let level = opening.from.patch; level < last; level++)',
    replace: 'for (let level = last - 1; level >= opening.from.patch; level--)'
  },
  {
    name: 'waiting routes count as open today',
    in: 'verdictOfLabel',
    find: 'if (criteria.waits > terms.today)',
    replace: 'if (criteria.waits > terms.today + 30)'
  },
  {
    name: 'the dearest right is used',
    in: 'compareUses',
    find: 'rankOf(a, maySpend) - rankOf(b, maySpend) ||',
    replace: 'rankOf(b, maySpend) - rankOf(a, maySpend) ||'
  },
  {
    name: 'a lapsed right still counts',
    in: 'isInTime',
    find: "return on.last > until ? 'no'",
    replace: "return on.last > until + 9999 ? 'no'"
  },
  {
    name: 'rights by agreement are had by everybody',
    in: 'findUse',
    find: "right.kind === 'not for sale') && !terms.held",
    replace: "right.kind === 'not for sale') && false && !terms.held"
  },
  {
    name: 'requirements without their condition',
    in: 'demandAt',
    find: "const truth = concerns === 'no' ? 'yes' :",
    replace: "const truth = concerns !== 'yes' ? 'yes' :"
  },
  {
    name: 'warnings close nothing',
    in: 'isClosing',
    find: "grade === 'blocks' || grade === 'warning'",
    replace: "grade === 'blocks'"
  },
  {
    name: 'a block may be accepted',
    in: 'judgeDemand',
    find: "const accepted = grade === 'warning' ?",
    replace: "const accepted = grade === 'blocks' ?"
  },
  {
    name: 'accepted for ever',
    in: 'isPassed',
    find: 'until !== undefined && (until === Infinity || (on.exact && on.last <= until))',
    replace: 'until !== undefined'
  },
  {
    name: 'what a hop uses comes back',
    in: 'lessOf',
    find: 'Math.max(0, had - taken)',
    replace: 'had'
  },
  {
    name: 'space is not asked for',
    in: 'askSpace',
    find: "if (truth !== 'yes') ask.findings.push",
    replace: "if (truth === 'no' && false) ask.findings.push"
  },
  {
    name: 'settings outlive a fresh install',
    in: 'leave',
    find: 'along.onlyHardware || leaves.isFresh === true',
    replace: 'along.onlyHardware'
  },
  {
    name: 'what a hop sets is forgotten',
    in: 'factAfter',
    find: "if (value !== undefined) return { kind: 'known', value };",
    replace: ''
  },
  {
    name: 'models take whatever is bought',
    in: 'askCures',
    find: "if (truth !== 'yes') ask.findings.push",
    replace: "if (truth !== 'yes' && code === 'cure') ask.findings.push"
  },
  {
    name: 'cures cost nothing',
    in: 'addAmount',
    find: "(use.costCents === 'unknown' ? 0 : use.costCents) + outlay.costCents",
    replace: "(use.costCents === 'unknown' ? 0 : use.costCents)"
  },
  {
    name: 'lead days are forgotten',
    in: 'layMove',
    find: 'if (move.asked.leadDays > 0)',
    replace: 'if (move.asked.leadDays > 9999)'
  },
  {
    name: 'companions nobody told of are not there',
    in: 'askCompanion',
    find: "const has: Truth = own ? 'yes' : asking.companionsWhole ? 'no' : 'unknown';",
    replace: "const has: Truth = own ? 'yes' : 'no';"
  },
  {
    name: 'every companion is essential',
    in: 'askCompanion',
    find: 'if (essential) {',
    replace: 'if (true) {'
  },
  {
    name: 'cautions hit from everywhere',
    in: 'isHit',
    find: 'if (caution.from && caution.from[from.release]?.[level] !== true) return false;',
    replace: ''
  },
  {
    name: 'work-arounds out of order',
    in: 'inOrder',
    find: 'open.some((o) => o.caution.id === id)',
    replace: 'false && open.some((o) => o.caution.id === id)'
  },
  {
    name: 'an offer not made is one made',
    in: 'stageWait',
    find: "asked.offer.made === 'yes') return undefined;",
    replace: "asked.offer.made !== 'no') return undefined;"
  },
  {
    name: 'withheld from nobody',
    in: 'withheldWait',
    find: "!collapse(asked.withheld, run, 'guard')) return undefined;",
    replace: "!collapse(asked.withheld, run, 'demand')) return undefined;"
  },
  {
    name: 'what is needed first takes no time',
    in: 'layMove',
    find: 'terms.calendar?.hasWindows ? dayAfter(gate.notBefore) : gate.notBefore',
    replace: 'undefined'
  },
  {
    name: 'a table with holes allows what it does not name',
    in: 'fitsTogether',
    find: "return table === 'complete' || isNamed ? 'no' : 'unknown';",
    replace: "return isNamed ? 'no' : 'yes';"
  },
  {
    name: 'who stays can be brought along',
    in: '#gateOf',
    find: "if (stands === 'yes' || partner.stays)",
    replace: "if (stands === 'yes')"
  },
  {
    name: 'a linked system may lose its target',
    in: '#findWays',
    find: '.filter(leadsOn)',
    replace: ''
  },
  {
    name: 'the order is made on the day of the hop',
    in: 'isInTime',
    find: 'truthOf(terms.leadsFrom <= until)',
    replace: 'truthOf(on.last <= until)'
  },
  {
    name: 'an offer price for ever',
    in: 'priceOf',
    find: 'on.exact && on.last <= end;',
    replace: 'on.exact;'
  },
  {
    name: 'a carried right keeps its name of edition',
    in: 'appliesTo',
    find: '(!right.mapsEditions || maps(right.mapsEditions, left, reached)) &&',
    replace: ''
  },
  {
    name: 'units of one edition serve another',
    in: 'unitKey',
    find: "`${pool}/${edition ?? ''}${number",
    replace: '`${pool}/${number'
  },
  {
    name: 'unlike sums of money are compared',
    in: 'countsNoMore',
    find: 'if (b[next] !== word) return false;',
    replace: 'if (b[next] !== word) return a.length <= b.length;'
  },
  {
    name: 'a route resting on more beats one resting on less',
    in: 'beats',
    find: 'if (!isSubset(by.restsOn, other.restsOn)) return false;',
    replace: ''
  },
  {
    name: 'beaten routes are listed',
    in: 'beats',
    find: 'isSubset(by.risks, other.risks) && takesNoMore(by.units, other.units);',
    replace: 'by.risks.join() === other.risks.join() && takesNoMore(by.units, other.units);'
  },
  {
    name: 'unknown sums are not counted',
    in: 'countsNoMore',
    find: 'next++; }',
    replace: '}'
  },
  {
    name: 'a setting helps where the thing is absent',
    in: 'cureTruthAt',
    find: "return cure.kind === 'purchase' ? not(there) : there;",
    replace: "return cure.kind === 'purchase' ? not(there) : 'yes';"
  },
  {
    name: 'a part is bought where there is one',
    in: 'cureTruthAt',
    find: "return cure.kind === 'purchase' ? not(there) : there;",
    replace: "return cure.kind === 'purchase' ? 'yes' : there;"
  },
  {
    name: 'a cure without its condition',
    in: 'cureTruthAt',
    find: 'if (when !== undefined) return truthIn(when, node, kinds);',
    replace: ''
  },
  {
    name: 'cures of what concerns nobody here',
    in: 'cureTruthAt',
    find: "if (guard !== undefined && truthIn(guard, node, kinds) === 'no') return 'no';",
    replace: ''
  },
  {
    name: 'what is needed only perhaps is needed',
    in: 'withLeast',
    find: 'const ifNeeded = asked.cures.filter((c) => least.some((l) => !l.cures.includes(c)));',
    replace: 'const ifNeeded = asked.cures.slice(99);'
  },
  {
    name: 'the least is the most',
    in: 'withLeast',
    find: 'const spared = asked.cures.filter((c) => !extra.includes(c));',
    replace: 'const spared = asked.cures.slice(99);'
  },
  {
    name: 'what is stale is as good as read',
    in: 'unread',
    find: 'if (!asking.hasStale) return terms;',
    replace: 'return terms;'
  },
  {
    name: 'only the first node is asked',
    in: 'judgeDemand',
    find: 'nodes .map(',
    replace: 'nodes.slice(0, 1).map('
  },
  {
    name: 'a cure for one node is done on none',
    in: 'nodeFactAfter',
    find: 'return workedOn(leaves, id, own, kinds);',
    replace: 'return own;'
  },
  {
    name: 'cures cost the same whatever the nodes',
    in: 'askWith',
    find: 'costCents: sum(cures.map((c) => c.cure.costCents ?? 0)) * terms.nodes,',
    replace: 'costCents: sum(cures.map((c) => c.cure.costCents ?? 0)),'
  },
  {
    name: 'what is lost afresh is forgotten',
    in: 'ofCompanion',
    find: "const isLost = kind === 'fresh install' && INSTALLED.has(companion.kind);",
    replace: 'const isLost = false;'
  },
  {
    name: 'putting back takes no time',
    in: 'findWork',
    find: "whole('copy back', copyBackMinutes)",
    replace: "whole('copy back')"
  },
  {
    name: 'what hangs on something has no pairings of its own',
    in: '#gatesAmong',
    find: 'if (!mutual) return this.gatesOf(own.system);',
    replace: 'if (!mutual) return () => [];'
  },
  {
    name: 'nothing is struck',
    in: '#strike',
    find: "for (let before = ''; before !== reachedBy(held);) {",
    replace: "for (let before = ''; before !== reachedBy(held) && false;) {"
  },
  {
    name: 'those that hang on each other wait for each other',
    in: '#gateOf',
    find: '...(isMutual ? {} :',
    replace: '...(isMutual && false ? {} :'
  },
  {
    name: 'a chosen way takes any cures',
    in: 'takesCures',
    find: 'named === undefined ||',
    replace: 'true ||'
  },
  {
    name: 'a chosen way is made under any right',
    in: 'isUnderItsRights',
    find: 'named === undefined ||',
    replace: 'true ||'
  },
  {
    name: 'a chosen way leads to any edition',
    in: 'isOffWay',
    find: 'model.editions[to.edition] !== step.edition)',
    replace: 'false)'
  },
  {
    name: 'what a cure mends shuts a release',
    in: 'findStanding',
    find: '&& !cured.has(f)',
    replace: ''
  },
  {
    name: 'what is demanded of some shuts a release for all',
    in: 'findStanding',
    find: 'if (methods || editions || hops) return false;',
    replace: ''
  },
  {
    name: 'what a decision lets pass shuts a release',
    in: 'truthAtStart',
    find: 'passesUntil === undefined ? truth : undefined',
    replace: 'truth'
  },
  {
    name: 'no fresh install leads anywhere',
    in: 'leadsAfresh',
    find: "h.hop.kind === 'fresh install' &&",
    replace: 'false &&'
  },
  {
    name: 'a caution for some is one for all',
    in: 'findBeforehand',
    find: '!from && when === undefined &&',
    replace: ''
  },
  {
    name: 'a patch is due where the level does',
    in: 'patchMinutes',
    find: '|| letIn[level]',
    replace: ''
  },
  {
    name: 'what keeps most is too late',
    in: '#inTime',
    find: 'while (least && !this.#isInTime',
    replace: 'while (least && this.#isInTime'
  },
  {
    name: 'nothing turns on any day',
    in: 'goesAlike',
    find: 'day >= first && day <= last && isOn(release)',
    replace: 'false && isOn(release) && day > 0',
    days: true
  },
  {
    name: 'leads are counted from whatever day',
    in: 'goesAlike',
    find: 'if (laid.turns.some((day) => day >= first && day <= last)) return false;',
    replace: '',
    days: true
  },
  {
    name: 'a way is another as soon as it begins on another day',
    in: 'moved',
    find: 'hop: later(hop, by),',
    replace: 'hop,',
    days: true
  },
  {
    name: 'no level behind the first is asked',
    in: '#admitLevels',
    find: '(!every && lower.some((cures) => cures.length === 0))',
    replace: 'true'
  }
];
