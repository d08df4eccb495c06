import { readCatalogueValue } from './catalogue-file';
import { renderInline } from './render-yaml';

/** A field's value as one line of text, as the file would write it; texts stand bare. */
export const formatInline = (value: unknown): string =>
  value === undefined ? '' : typeof value === 'string' ? value : renderInline(value);

/** Reads such a line back. Undefined where it is not a value. */
export function parseInline(text: string): { readonly value: unknown } | undefined {
  const whole = readCatalogueValue(`{value: ${text.replace(/\r?\n/g, ' ')}}`);
  return typeof whole === 'object' && whole !== null && 'value' in whole ? { value: whole.value } : undefined;
}
