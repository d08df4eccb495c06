import type { Contributor } from '../deadline';
import type { PhaseName } from '../date';
import type { Target } from '../estate';
import type { NotStraight } from '../route';
import type { Standing } from '../version';
import { sayClosing } from './hop';
import { describeReason } from './reason';
import { sayMoney } from './dates';
import type { Names } from '../catalogue';

const PHASE_WORDS: Readonly<Record<PhaseName, string>> = {
  full: 'full service',
  security: 'security service',
  extension: 'paid extension'
};

/** What sets a deadline, as the rest of a sentence that starts with its day. */
export function sayContributor(c: Contributor, names: Names): string {
  const disputed = c.disputed ? ' (stated in several ways; the earliest counts until somebody rules)' : '';
  return `${sayEnd(c, names)}${disputed}`;
}

function sayEnd(c: Contributor, names: Names): string {
  const [release = c.subject, patch] = c.subject.split('/');
  const service = c.phase ? PHASE_WORDS[c.phase] : 'service';
  switch (c.kind) {
    case 'service of installed':
      return `${service} of ${names.release(c.subject)} ends`;
    case 'service on the way':
      return `service of ${names.release(c.subject)} ends`;
    case 'closing':
      return sayClosing(names, c.subject);
    case 'patch':
      return `${names.release(release)} ${patch ?? ''} is no longer to be had`;
    case 'right':
      return `${c.subject === '' ? 'what makes it free' : names.right(c.subject)} lapses`;
    case 'service of host':
      return `${service} of ${c.subject}, which it hangs on, ends`;
    case 'hardware model':
      return `the maker's service for ${c.subject} ends`;
    case 'certificate':
      return 'its certificate ends';
    case 'activation':
      return 'the grace of its activation ends';
    case 'pairing':
      return 'what it hangs on can no longer be brought along';
    case 'decision':
      return `what was decided of ${names.requirement(c.subject)} runs out`;
    case 'newer patch':
      return 'a newer patch shuts the hop';
  }
}

const AFTER_PHASE: Readonly<Record<PhaseName, string>> = {
  full: 'only security updates after it, if any',
  security: 'no security updates after it, but for a paid extension where there is one',
  extension: 'no updates at all after it'
};

/** What missing it costs. */
export function sayCost(c: Contributor, currency: string): string {
  switch (c.cost.code) {
    case 'no service':
      return c.phase ? AFTER_PHASE[c.phase] : 'no service after it';
    case 'out of reach':
      return 'the target is out of reach after it';
    case 'keeps less':
      return `after it only ${c.cost.kept} ${c.cost.kept === 'data' ? 'is' : 'are'} kept`;
    case 'another way':
      return 'after it another way has to be taken';
    case 'stops':
      return 'after it the system stops working as it should';
    case 'units':
      return `after it the step takes ${c.cost.number === 'unknown' ? 'nobody knows how many' : c.cost.number} units of ${c.cost.pool}`;
    case 'money':
      return `after it the step costs ${sayMoney(c.cost.cents, currency)} more`;
  }
}

/** Why one hop in place does not do, as a sentence's end. */
export function sayNotStraight(why: NotStraight, from: Standing, to: Target, names: Names): string {
  const [a, b] = [names.release(from.release), names.release(to.release)];
  switch (why.kind) {
    case 'no hop':
      return why.tableComplete
        ? `no hop in place leads from ${a} to ${b}; the publisher’s table is complete, so there is none`
        : `no hop in place from ${a} to ${b} is published; the table is not said to be complete`;
    case 'architecture':
      return `the hop from ${a} to ${b} never goes from ${names.architecture(from.architecture)} to ${names.architecture(to.architecture)}: the word size changes only in a fresh install`;
    case 'edition':
      return `the hop from ${a} to ${b} does not lead from ${names.edition(from.edition)} to ${names.edition(to.edition)}; ${why.partial ? 'nobody has said whether it may' : 'its table of editions decides'}`;
    case 'clauses':
      return why.reasons.map(describeReason).join('; ');
  }
}
