import type { LintCode, LintFinding } from '../lint';

/** What is amiss, and what can be done: braces hold details of the finding. */
const SENTENCES: Readonly<Record<LintCode, readonly [says: string, mend: string]>> = {
  'ends-before-start': [
    'Service of {release} ends on {until}, before it comes out on {start}.',
    'Correct one of the two days.'
  ],
  'phases-out-of-order': [
    'The {phase} phase ends on {until}, before the {other} phase does on {otherUntil}.',
    'Correct one of the two days.'
  ],
  'closes-before-opens': [
    '{entry} closes on {closes}, before it opens on {opens}.',
    'Correct one of the two days.'
  ],
  'patch-before-release': [
    '{patch} came out on {published}, before its release on {start}.',
    'Correct one of the two days.'
  ],
  'patch-ends-before-start': [
    '{patch} can be had until {until}, but came out on {published}.',
    'Correct one of the two days.'
  ],
  'patches-out-of-order': [
    '{patch} stands after {before}, which came out later.',
    'Put the levels in the order of their days'
  ],
  'read-before-written': [
    '“{source}” was read on {read}, before it was written on {written}.',
    'Correct one of the two days.'
  ],
  'hops-disagree': [
    '{hop} and {other} lead to {to} from the same release and edition, and demand or keep different things.',
    'Make them one hop stated in two ways'
  ],
  'rights-disagree': [
    '{right} and {other} are for the same steps at different prices.',
    'Give one of them an end, or remove it.'
  ],
  'requirements-disagree': [
    '{entry} and {other} ask different figures of the same machines.',
    'Remove one, or state it as the other’s second statement.'
  ],
  'fares-disagree': [
    '{companion} is said to be “{verdict}” and “{other}” on the same release.',
    'Narrow one of the two, or say when it holds.'
  ],
  'never-holds': ['{entry} can never hold: {text}.', 'Correct the figures.'],
  'always-holds': ['{entry} always holds, so it asks nothing: {text}.', 'Correct the figures.'],
  disputed: [
    '{entry} is stated differently by {by}: {fields}.',
    'Rule which holds; until then it counts as unknown.'
  ],
  'hop-backwards': ['{hop} leads from {from} back to {to}.', 'Remove the hop'],
  'hop-nowhere': ['Nobody can take {hop}: no edition leads from {from} to {to}.', 'Remove the hop'],
  'hop-forbidden': [
    '{cell} says that nothing leads in place from {from} to {to}; {hop} does.',
    'Forget that it is forbidden'
  ],
  'change-not-richer': [
    'The change from {edition} to {other} is never made: by their features {other} has no more than {edition}.',
    'Remove the change'
  ],
  unreachable: ['No hop leads to {release}, not even a fresh install.', 'Add the hop that leads there.'],
  'right-without-path': [
    '“{right}” is sold for hops in place to {to}, but none leads there.',
    'Leave hops in place out of it'
  ],
  'cure-beside': ['The cure {cure} changes {fact}, which {entry} does not ask.', 'Remove the cure'],
  'cures-overlap': [
    'The cures {other} and {cure} of {entry} make the same of one fact, for some of the same systems.',
    'Say for whom each is, with “when”, or remove one.'
  ],
  'caution-beside': ['No hop meets “{caution}”.', 'Correct the releases it names.'],
  'track-without-release': [
    'The track {track} has no release published as {maturity}.',
    'Give a release a day for that maturity.'
  ],
  'offer-before-release': [
    'The offer {offer} begins on {begins}, before there is anything to offer, or ends before it begins.',
    'Correct the day.'
  ],
  'no-service-end': [
    'Nothing is said of how long {product} {release} is served.',
    'Record that nobody has said'
  ],
  'empty-cells': [
    'Nobody has said whether these are possible in place: {cells}.',
    'Say that the table is complete: empty means forbidden'
  ],
  'edition-hole': [
    '{hop} says nothing of edition {edition}, which {from} comes in; so it is forbidden.',
    'Mark its editions as not all known'
  ],
  'no-figure': [
    '{entry} asks for something nobody has put a figure to.',
    'Ask the publisher for the figure.'
  ],
  'companion-not-listed': [
    '{companion} is not listed for the newest release, {release}.',
    'Add how it fares there.'
  ],
  'no-partner': [
    '{releases}: no release of {other} fits, so it can stand nowhere.',
    'Add what fits, or call the table partial.'
  ],
  'no-source': ['{entry} has no source.', 'Say who says so.'],
  'stale-source': [
    '“{source}” was last read more than a year ago.',
    'It was read again today and still holds'
  ],
  'unused-source': ['Nothing refers to “{source}”.', 'Remove the source'],
  'unused-list': ['No condition refers to the list “{list}”.', 'Remove the list']
};

const fill = (text: string, detail: Readonly<Record<string, string>>): string =>
  text.replace(/\{(\w+)\}/g, (_, key: string) => detail[key] ?? '');

/** What a finding says, with what it is about put in; `nameOf` says a detail by its key, in words. */
export const describeFinding = (
  finding: LintFinding,
  nameOf: (key: string, text: string) => string = (_, text) => text
): string =>
  fill(
    SENTENCES[finding.code][0],
    Object.fromEntries(Object.entries(finding.detail).map(([key, text]) => [key, nameOf(key, text)]))
  );

/** What can be done about it: the name of the mend where there is one to press, else advice. */
export const describeMend = (finding: LintFinding): string =>
  fill(SENTENCES[finding.code][1], finding.detail);
