import { askingOf } from '../../src/core/bind/asking';
import { CalendarIndex } from '../../src/core/bind/calendar-index';
import { activatedOf } from '../../src/core/bind/gather';
import type { System } from '../../src/core/estate/schema';
import { startsOf } from '../../src/core/bind/starts';
import { formatDay } from '../../src/core/date/day';
import type { Planning } from '../../src/core/plan/planning';
import { idsOfPlace } from '../../src/core/compile/place-ids';
import { verifyTermsOf, type VerifyLinked, type VerifyTerms } from '../../src/core/verify/verify-terms';
import { FactKinds } from '../../src/core/condition/fact-kind';

/** The verifier's terms of a system of an estate, with what it is linked with; undefined where its product is not known. */
export function verifierFor(planning: Planning, id: string, gated = true): VerifyTerms | undefined {
  const system = planning.system(id);
  const model = system && planning.modelFor(system);
  if (!system || !model) return undefined;
  const { estate, catalogue, today, links, decided } = planning;
  const goal =
    estate.goals.find((g) => g.team === system.team) ?? estate.goals.find((g) => g.team === undefined);
  const day = formatDay(today);
  const decisions = estate.decisions.filter(
    (d) =>
      (d.until === undefined || d.until >= day) &&
      (('system' in d.scope && d.scope.system === id) || 'estate' in d.scope)
  );
  return verifyTermsOf({
    product: model.product,
    goal: goal!,
    countsExpected: estate.site.countsExpected,
    today,
    nodes: system.nodes ?? 1,
    ...calendarOf(planning, system),
    activated: activatedOf(system, decided),
    held: new Set(estate.rightsHeld.filter((r) => r.held !== 0).map((r) => r.right)),
    asking: askingOf({ catalogue, product: model.product }, system, { links, decided }, { decisions, today }),
    kinds: new FactKinds(catalogue.facts),
    linked: (pairing) => {
      const ends = gated ? links.around(system).filter((e) => e.kind === pairing.kind) : [];
      if (gated && (ends.length === 0 || ends.some((e) => e.system === 'missing'))) return 'unknown';
      return ends.flatMap(({ system: other }): VerifyLinked[] => {
        // What has been gone through already hangs on this in turn.
        if (typeof other === 'string' || ('is' in other.product && other.product.is !== pairing.other))
          return [];
        const terms = verifierFor(planning, other.id, !hangsOn(planning, other, id));
        const otherModel = planning.modelFor(other);
        if (!terms || !otherModel) return [];
        const starts = startsOf(otherModel, other);
        const made = planning.termsFor(otherModel, {
          ...planning.gather().cases[0]!,
          system: other,
          goal: terms.goal
        });
        const start = starts.length === 1 && starts[0] ? idsOfPlace(made, starts[0]) : undefined;
        const stays = estate.decisions.some(
          (d) =>
            d.kind === 'stay' &&
            'system' in d.scope &&
            d.scope.system === other.id &&
            (d.until === undefined || d.until >= day)
        );
        return [{ system: other.id, terms, start, stays }];
      });
    }
  });
}

/** Whether a pairing of a system's own speaks of its link with another: those two would ask each other for ever. */
function hangsOn(planning: Planning, system: System, id: string): boolean {
  const kinds = new Set((planning.modelFor(system)?.product.pairings ?? []).map((p) => p.kind));
  return planning.links
    .around(system)
    .some((e) => kinds.has(e.kind) && typeof e.system !== 'string' && e.system.id === id);
}

/** The calendar of a system as it is written: its own, with the freezes that bind it. */
function calendarOf({ estate }: Planning, system: System): Pick<VerifyTerms, 'calendar' | 'wayBackMinutes'> {
  const calendar = new CalendarIndex(estate).of(system);
  const { wayBackMinutes } = estate.site;
  if (!calendar) return {};
  const { windows, freezes, hasWindows } = calendar;
  return {
    calendar: { ...(hasWindows ? { windows } : {}), freezes },
    ...(wayBackMinutes === undefined ? {} : { wayBackMinutes })
  };
}
