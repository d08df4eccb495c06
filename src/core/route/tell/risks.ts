import type { DemandModel } from '../../compile';
import { formatConditionWith } from '../../condition';
import type { AskedRisk } from '../asked';
import type { Move } from '../move';
import type { Terms } from '../terms';
import type { Risk } from '../types';

/** The risks of a move, each with the name of what it is about: of the hop and its release first, then what it asks, by key. */
export function risksOf(terms: Terms, move: Move): Risk[] {
  const risks: Risk[] = [];
  if (move.hop?.hop.unsupported) {
    const { consequence } = move.hop.hop;
    risks.push({
      key: `unsupported ${move.id}`,
      kind: 'unsupported',
      name: releaseName(terms, move.to.release),
      ...(consequence === undefined ? {} : { because: consequence })
    });
  }
  if (terms.isPreview[move.to.release])
    risks.push({
      key: `early ${move.to.release}`,
      kind: 'preview',
      name: releaseName(terms, move.to.release)
    });
  return [...risks, ...move.asked.risks.map((risk) => riskOf(terms, risk))];
}

function releaseName({ model }: Terms, at: number): string {
  const entry = model.releases[at]?.release;
  return entry?.name ?? entry?.id ?? '';
}

function riskOf(terms: Terms, risk: AskedRisk): Risk {
  const { needs, product, sequence } = terms.model;
  const { key } = risk;
  const companion = (id: string): string =>
    needs.companions.find((c) => c.companion.id === id)?.companion.name ?? id;
  switch (risk.kind) {
    case 'caution':
      return {
        key,
        kind: 'caution',
        name: needs.cautions.find((c) => c.caution.id === risk.id)?.caution.name ?? risk.id
      };
    case 'companion': {
      const kind = risk.works === 'no' ? 'does not work' : 'may not work';
      return { key, kind, name: companion(risk.id) };
    }
    case 'with less':
      return { key, kind: 'with less', name: companion(risk.id) };
    case 'withheld': {
      const hop = product.hops?.find((h) => h.id === risk.hop);
      const because = hop?.withheld?.because;
      const name = releaseName(terms, sequence.indexById.get(hop?.to ?? '') ?? -1);
      return { key, kind: 'withheld', name, ...(because === undefined ? {} : { because }) };
    }
    case 'no way back':
      return { key, kind: 'no way back' };
    case 'lower grade':
      return { key, ...ofLowerGrade(terms, risk.demand) };
  }
}

/** A demand of a grade that does not close: by its name, else the feature that is lost, else what it asks for, if known. */
function ofLowerGrade({ model }: Terms, { requirement, grade, needs }: DemandModel): Omit<Risk, 'key'> {
  const { name, feature } = requirement;
  const kind = grade === 'loses' || grade === 'degrades' ? grade : 'advises';
  const wanted = needs === 'unknown' ? undefined : formatConditionWith(needs, model.needs.nameOf);
  const lost = model.product.features?.find((f) => f.id === feature)?.name ?? feature;
  const named = name ?? (kind === 'loses' ? (lost ?? wanted) : wanted);
  return { kind, ...(named === undefined ? {} : { name: named }) };
}
