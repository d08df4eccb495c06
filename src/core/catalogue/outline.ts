import { z } from 'zod';
import { catalogueSchema } from './schema';

/** One field of an entry, as a form or a completion needs it. */
export interface FieldOutline {
  readonly key: string;
  /** `list`: plain texts; `value`: something with parts of its own, written as text. */
  readonly kind: 'text' | 'choice' | 'number' | 'switch' | 'list' | 'value';
  readonly required: boolean;
  readonly choices: readonly string[];
  readonly about: string;
}

interface Node {
  readonly type?: string;
  readonly properties?: Readonly<Record<string, Node>>;
  readonly items?: Node;
  readonly additionalProperties?: Node | boolean;
  readonly required?: readonly string[];
  readonly enum?: readonly string[];
  readonly const?: unknown;
  readonly anyOf?: readonly Node[];
  readonly description?: string;
  readonly $ref?: string;
}

let whole: (Node & { readonly $defs?: Readonly<Record<string, Node>> }) | undefined;

/** The schema as JSON Schema, made once. */
const schema = (): NonNullable<typeof whole> =>
  (whole ??= z.toJSONSchema(catalogueSchema, { io: 'input' }) as NonNullable<typeof whole>);

const resolve = (node: Node | undefined): Node | undefined =>
  node?.$ref ? schema().$defs?.[node.$ref.replace('#/$defs/', '')] : node;

/** Fields of the map at a path of the file (numbers stand for list elements); empty where there is no map there. */
export function outlineAt(path: readonly (string | number)[]): FieldOutline[] {
  const maps = mapsAt(path);
  const fields = new Map<string, FieldOutline>();
  for (const map of maps)
    for (const [key, node] of Object.entries(map.properties ?? {}))
      // Of several forms a map may have, a field is needed only where every form needs it.
      if (!fields.has(key))
        fields.set(
          key,
          outlineField(
            key,
            node,
            maps.every((m) => m.required?.includes(key))
          )
        );
  return [...fields.values()];
}

/** The values a field at a path may have, where they are a closed set. */
export function choicesAt(path: readonly (string | number)[]): readonly string[] {
  const key = path[path.length - 1];
  return outlineAt(path.slice(0, -1)).find((f) => f.key === key)?.choices ?? [];
}

function mapsAt(path: readonly (string | number)[]): Node[] {
  let nodes: Node[] = [schema()];
  for (const step of path)
    nodes = nodes.flatMap((node) =>
      alternatives(node).flatMap((n) => {
        if (typeof step === 'number') return n.items ? [n.items] : [];
        const named =
          n.properties?.[step] ??
          (typeof n.additionalProperties === 'object' ? n.additionalProperties : undefined);
        return named ? [named] : [];
      })
    );
  return nodes.flatMap(alternatives).filter((n) => n.properties);
}

function alternatives(node: Node): Node[] {
  const found = resolve(node);
  return found ? (found.anyOf ? found.anyOf.flatMap(alternatives) : [found]) : [];
}

function outlineField(key: string, node: Node, required: boolean): FieldOutline {
  const options = alternatives(node);
  const choices = options.flatMap((o) => o.enum ?? (typeof o.const === 'string' ? [o.const] : []));
  const base = { key, required, choices, about: node.description ?? '' };
  if (
    options.length > 0 &&
    options.every((o) => o.enum !== undefined || o.const !== undefined) &&
    choices.length > 0
  )
    return { ...base, kind: 'choice' };
  if (
    options.length === 1 &&
    options[0]?.items &&
    alternatives(options[0].items).every((o) => o.type === 'string')
  )
    return { ...base, kind: 'list' };
  if (options.some((o) => o.type === 'object' || o.type === 'array')) return { ...base, kind: 'value' };
  if (options.some((o) => o.type === 'boolean')) return { ...base, kind: 'switch' };
  return {
    ...base,
    kind: options.some((o) => o.type === 'integer' || o.type === 'number') ? 'number' : 'text'
  };
}
