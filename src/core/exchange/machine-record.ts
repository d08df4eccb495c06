import type { Issue } from '../kit';
import type { Fact, InstalledTexts, System, SystemCompanion } from '../estate';

/** One machine as some file tells of it, before it is compared with what is known. Absent: the file says nothing of it. */
export interface MachineRecord {
  /** Where it stands in the file, from 1. */
  readonly row: number;
  readonly name: string;
  readonly texts: InstalledTexts;
  readonly team?: string;
  readonly site?: string;
  readonly nodes?: number;
  /** The node it tells of, in a list with a row a node. */
  readonly node?: string;
  /** ISO day on which it was read. */
  readonly observed?: string;
  readonly note?: string;
  readonly purl?: string;
  readonly cpe?: string;
  /** How it was asked over the wire. */
  readonly asked?: string;
  readonly facts?: Readonly<Record<string, Fact>>;
  readonly companions?: readonly SystemCompanion[];
  /** Links to machines by name. */
  readonly links?: readonly NamedLink[];
  /** Why it is no machine of its own. */
  readonly left?: Issue;
  /** What was read in a way that could also be meant otherwise. */
  readonly remarks: readonly string[];
}

export interface NamedLink {
  readonly kind: NonNullable<System['links']>[number]['kind'];
  readonly name: string;
}

/** A text no longer than the schema takes; undefined where it is empty. */
export const clip = (text: string | undefined, most = 500): string | undefined => {
  const clean = text?.trim().slice(0, most).trim();
  return clean ? clean : undefined;
};
