import { Document, visit } from 'yaml';

/** Longest line before a value is broken into a block. */
const MAX_INLINE = 100;

/** A value on one line, as YAML flow text that reads back as the same value. */
export function renderInline(value: unknown): string {
  const document = new Document(value);
  visit(document, { Collection: (_, node) => void (node.flow = true) });
  return document.toString({ lineWidth: 0, flowCollectionPadding: false }).trimEnd();
}

/** A value as the lines of a block: maps and lists are broken up only as far as they do not fit on a line. */
export function renderBlock(value: unknown, indent: number): string[] {
  if (Array.isArray(value) && value.length > 0) return value.flatMap((v: unknown) => renderItem(v, indent));
  if (typeof value === 'object' && value !== null && !Array.isArray(value) && Object.keys(value).length > 0)
    return Object.entries(value).flatMap(([key, child]) =>
      child === undefined ? [] : renderPair(key, child, indent)
    );
  return [renderInline(value)];
}

/** `key: value` as lines without the indent of the first. */
export function renderPair(key: string, value: unknown, indent: number): string[] {
  const name = renderInline(key);
  const inline = `${name}: ${renderInline(value)}`;
  if (!isCollection(value) || indent + inline.length <= MAX_INLINE) return [inline];
  return [`${name}:`, ...renderBlock(value, indent + 2).map((line) => `  ${line}`)];
}

/** `- value` as lines without the indent of the first. */
export function renderItem(value: unknown, indent: number): string[] {
  const inline = `- ${renderInline(value)}`;
  if (!isCollection(value) || indent + inline.length <= MAX_INLINE) return [inline];
  return renderBlock(value, indent + 2).map((line, i) => (i === 0 ? `- ${line}` : `  ${line}`));
}

const isCollection = (value: unknown): boolean =>
  typeof value === 'object' && value !== null && Object.keys(value).length > 0;
