/** The docs as the application's help: `virtual:handbook` is a list of their chapters, made when it is built. */
import { readFileSync } from 'node:fs';
import { marked } from 'marked';

const ID = 'virtual:handbook';
/** In the order in which they are looked through. */
const DOCS = ['handbook', 'conditions', 'formats', 'reckoning'];

/** Splits a document at its headings of the second level. What comes before the first is for readers of the file. */
export function chaptersOf(doc, markdown) {
  const [, ...parts] = markdown.split(/^## /m);
  return parts.map((part) => {
    const [title = '', ...lines] = part.split('\n');
    const body = lines.join('\n');
    const [, where = ''] = /^<!-- (.*?) -->/m.exec(body) ?? [];
    const said = (key) =>
      (new RegExp(`${key}: ([^;]*)`).exec(where)?.[1] ?? '')
        .split(',')
        .map((w) => w.trim())
        .filter(Boolean);
    // Worked examples are for who changes the code; links to other files lead nowhere from here.
    const told = body
      .replace(/<!--[^]*?-->/g, '')
      .replace(/^```[^]*?^```$/gm, '')
      .replace(/\[([^\]]*)\]\([^)]*\)/g, '$1');
    const html = marked.parse(told, { async: false }).trim();
    const text = html
      .replace(/<[^>]*>/g, ' ')
      .replace(/\s+/g, ' ')
      .trim();
    return { doc, title: title.replace(/`/g, ''), html, text, at: said('at'), words: said('words') };
  });
}

export const handbook = () => ({
  name: 'handbook',
  resolveId: (id) => (id === ID ? `\0${ID}` : undefined),
  load(id) {
    if (id !== `\0${ID}`) return undefined;
    const chapters = DOCS.flatMap((name) => {
      const file = new URL(`../docs/${name}.md`, import.meta.url).pathname;
      this.addWatchFile(file);
      return chaptersOf(name, readFileSync(file, 'utf8'));
    });
    return `export default ${JSON.stringify(chapters)};`;
  }
});
