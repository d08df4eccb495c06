import { foldText } from '../../version';
import type { Catalogue, Product } from '../schema';
import type { DateOrder, ReleaseTable } from './cells';

/** What a table of a publisher is about. */
export const TABLE_KINDS = [
  'life cycle',
  'hops',
  'editions',
  'requirements',
  'list',
  'companions',
  'problems',
  'features'
] as const;
export type TableKind = (typeof TABLE_KINDS)[number];

/** What a person says of a table as a whole; each kind uses what it needs. */
export interface TableAbout {
  /** Days that can be read two ways. */
  readonly order?: DateOrder;
  /** Its rows are what is arrived at. */
  readonly isTurned?: boolean;
  /** The releases it is of, as a range. */
  readonly at?: string;
  /** The fact a list is of. */
  readonly fact?: string;
  /** What is not on a list does not do. */
  readonly isWhole?: boolean;
  /** What companions are. */
  readonly companion?: NonNullable<Product['companions']>[number]['kind'];
  /** The steps a table of editions is of: a kind of hop, or one hop by its id. */
  readonly hops?: string;
}

/** A table with what is known of it. */
export interface TableReading {
  readonly table: ReleaseTable;
  /** A role a column. */
  readonly roles: readonly string[];
  /** What words of its cells mean, where a person has said so; suggested otherwise. */
  readonly meanings: ReadonlyMap<string, string>;
  readonly about: TableAbout;
  /** What it is called. */
  readonly title: string;
  /** Id of its source. */
  readonly source: string;
}

/** What taking one thing of a table in would do. */
export interface TableChange {
  readonly kind: 'new' | 'changed' | 'same' | 'gone' | 'against' | 'no release';
  /** A release, a pair, a thing: as the table calls it. */
  readonly what: string;
  /** What is said of it, by the role of its column. */
  readonly details: readonly TableDetail[];
  /** The release it is of, by id, where it is of one the product has. */
  readonly release?: string;
}

export interface TableDetail {
  readonly role: string;
  readonly before?: string;
  readonly after: string;
}

/** What a table is put into. */
export interface TableGround {
  readonly product: Product;
  readonly lists: NonNullable<Catalogue['lists']>;
  /** Kinds of facts the catalogue declares. */
  readonly facts: NonNullable<Catalogue['facts']>;
}

export interface TableTaken extends TableGround {
  readonly changes: readonly TableChange[];
  /** Rows nothing was understood of, by index. */
  readonly left: readonly number[];
  /** Cells that were not understood, each with the row they are of. */
  readonly unread: readonly { readonly of: string; readonly cell: string }[];
  /** Some days can be read two ways. */
  readonly needsOrder?: boolean;
}

/** How tables of one kind are read. */
export interface TableReader {
  readonly roles: readonly string[];
  /** What words of cells can mean; none where they are not asked for. */
  meanings(ground: TableGround): readonly string[];
  suggestRoles(table: ReleaseTable, ground: TableGround): string[];
  /** Different words of its cells that somebody should give a meaning. */
  words(reading: TableReading, ground: TableGround): readonly string[];
  suggestMeaning(word: string, ground: TableGround): string;
  take(reading: TableReading, ground: TableGround): TableTaken;
}

export const LEFT_OUT = 'left out';

/** Roles by the words of headings: each pattern in turn takes the first free column that fits it. */
export function rolesByHeading(
  head: readonly string[],
  patterns: readonly (readonly [role: string, heading: RegExp])[]
): string[] {
  const roles = head.map(() => LEFT_OUT);
  const taken = new Set<string>();
  for (const [role, heading] of patterns) {
    if (taken.has(role)) continue;
    const at = head.findIndex((h, i) => roles[i] === LEFT_OUT && heading.test(h));
    if (at < 0) continue;
    roles[at] = role;
    taken.add(role);
  }
  return roles;
}

/** The cell of a row in the column of a role; empty where there is none. */
export const cellOf = (reading: TableReading, row: readonly string[], role: string): string => {
  const at = reading.roles.indexOf(role);
  return at < 0 ? '' : (row[at] ?? '').trim();
};

/** Whether an entry goes by a name: its id, its own or another. */
export const isCalled = (
  entry: {
    readonly id: string;
    readonly name?: string | undefined;
    readonly aliases?: readonly string[] | undefined;
  },
  text: string
): boolean =>
  [entry.id, entry.name ?? entry.id, ...(entry.aliases ?? [])].some((n) => foldText(n) === foldText(text));

/** What a table says twice counts the first time. */
export class Once {
  readonly #said = new Set<string>();

  isFirst(...parts: readonly string[]): boolean {
    const key = JSON.stringify(parts.map(foldText));
    if (this.#said.has(key)) return false;
    this.#said.add(key);
    return true;
  }
}

/** Something of a list with one entry put in or changed. */
export function withEntry<E extends { readonly id: string }>(list: readonly E[] | undefined, entry: E): E[] {
  const at = (list ?? []).findIndex((e) => e.id === entry.id);
  return at < 0 ? [...(list ?? []), entry] : (list ?? []).map((e, i) => (i === at ? entry : e));
}
