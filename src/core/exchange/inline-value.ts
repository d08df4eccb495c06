import { readYamlValue } from './read-yaml';
import { renderInline } from './render-yaml';

/** A field's value as one line of text, as the file would write it; texts stand bare, lists of plain words without brackets. */
export function formatInline(value: unknown): string {
  if (value === undefined) return '';
  if (typeof value === 'string') return value;
  const isPlain =
    Array.isArray(value) && value.every((v) => typeof v === 'string' && /^[^,[\]{}"']+$/.test(v));
  return isPlain ? value.join(', ') : renderInline(value);
}

/** Reads such a line back. Undefined where it is not a value. */
export function parseInline(text: string): { readonly value: unknown } | undefined {
  const whole = readYamlValue(`{value: ${text.replace(/\r?\n/g, ' ')}}`);
  return typeof whole === 'object' && whole !== null && 'value' in whole ? { value: whole.value } : undefined;
}
