/**
 * Tables as they were copied: the page their cells are of, as the clipboard has it beside their plain text; else a text that is plainly a
 * page, Markdown or a list of objects. Undefined where it is neither.
 */
export function copiedTables(event: ClipboardEvent): string | undefined {
  const html = event.clipboardData?.getData('text/html') ?? '';
  if (/<table[\s>]/i.test(html)) return html;
  const text = event.clipboardData?.getData('text/plain') ?? '';
  return /<table[\s>]|\|\s*:?-{3,}|^\s*\[?\s*\{/i.test(text) ? text : undefined;
}
