import { formatDay, parseMessyDay } from '../date';
import type { Fact } from '../estate';
import { fail, type Result, succeed } from '../kit';
import { findTextFault } from './guard';
import { clip, type MachineRecord } from './machine-record';

/** Keys of freedesktop os-release(5) that make a text one. */
const KEYS = ['NAME', 'ID', 'PRETTY_NAME', 'VERSION', 'VERSION_ID'];
const MAX_RECORDS = 100_000;

/** True where several lines read as os-release(5) has them. */
export const looksLikeOsRelease = (text: string): boolean => {
  const keys = new Set(
    text
      .slice(0, 20_000)
      .split(/\r?\n/)
      .flatMap((l) => ASSIGNMENT.exec(l)?.[1] ?? [])
  );
  return KEYS.filter((k) => keys.has(k)).length >= 2;
};

const ASSIGNMENT = /^\s*([A-Z][A-Z0-9_]*)=(.*)$/;

/**
 * Reads os-release(5) texts, many pasted together: a new one begins where a key comes again, or at a line that names a
 * machine (`draw-01:`, `# draw-01`, `== draw-01 ==`). SUPPORT_END becomes the fact `support.ends`. A text without a name
 * of its machine is taken under `fallback` and its number.
 */
export function parseOsRelease(text: string, fallback: string): Result<MachineRecord[]> {
  const fault = findTextFault(text, 'flat');
  if (fault) return fail(fault);
  const blocks: { name?: string; line: number; values: Map<string, string> }[] = [];
  let pending: string | undefined;
  let open: (typeof blocks)[number] | undefined;
  text.split(/\r?\n/).forEach((raw, i) => {
    const match = ASSIGNMENT.exec(raw);
    const [, key, value = ''] = match ?? [];
    if (key === undefined) {
      const name = machineNameOf(raw);
      if (name !== undefined) [pending, open] = [name, undefined];
      return;
    }
    if (!open || open.values.has(key)) {
      open = { line: i + 1, values: new Map(), ...(pending === undefined ? {} : { name: pending }) };
      pending = undefined;
      blocks.push(open);
    }
    open.values.set(key, unquote(value));
  });
  const whole = blocks.filter((b) => KEYS.some((k) => b.values.has(k)));
  if (whole.length === 0) return fail({ code: 'no-os-release' });
  if (whole.length > MAX_RECORDS) return fail({ code: 'too-many-rows', detail: String(MAX_RECORDS) });
  return succeed(
    whole.map((b, i) =>
      recordOf(b.values, b.line, b.name ?? (whole.length === 1 ? fallback : `${fallback} ${i + 1}`))
    )
  );
}

/** Names as machines have them; a comment in words is none. */
const HOST = /^[A-Za-z0-9][A-Za-z0-9._-]*$/;

/** A line that says whose text follows. */
function machineNameOf(line: string): string | undefined {
  const clean = line.trim();
  if (clean === '' || clean.length > 200) return undefined;
  const framed =
    /^(?:#+|=+>?|-{2,}|\*+|\[)\s*(.*?)\s*(?:<?=+|-{2,}|\*+|\]|#+)?$/.exec(clean)?.[1] ??
    /^(\S+):$/.exec(clean)?.[1];
  const name = framed
    ?.replace(/[:/]?\s*\/?(?:etc|usr\/lib)\/os-release$/, '')
    .replace(/:$/, '')
    .trim();
  return name !== undefined && HOST.test(name) ? name : undefined;
}

/** The value as a shell reads it: one pair of quotes off, backslashes resolved. */
function unquote(value: string): string {
  const clean = value.trim();
  const quote = clean[0];
  if ((quote === '"' || quote === "'") && clean.length > 1 && clean.endsWith(quote))
    return quote === "'" ? clean.slice(1, -1) : clean.slice(1, -1).replace(/\\(["$`\\])/g, '$1');
  return clean;
}

function recordOf(values: ReadonlyMap<string, string>, row: number, name: string): MachineRecord {
  const get = (key: string): string | undefined => clip(values.get(key));
  const remarks: string[] = [];
  const support = get('SUPPORT_END');
  const ends = support === undefined ? undefined : parseMessyDay(support);
  if (support !== undefined && (!ends || ends.also !== undefined)) remarks.push(`"${support}" is not a day`);
  const facts: Record<string, Fact> =
    ends && ends.also === undefined ? { 'support.ends': { value: formatDay(ends.day) } } : {};
  const product = get('NAME') ?? get('PRETTY_NAME') ?? get('ID');
  const texts = {
    product,
    version: get('VERSION_ID') ?? get('VERSION'),
    build: get('BUILD_ID') ?? get('IMAGE_VERSION'),
    edition: get('VARIANT') ?? get('VARIANT_ID'),
    architecture: get('ARCHITECTURE')
  };
  const cpe = get('CPE_NAME');
  return {
    row,
    name: name.slice(0, 300),
    texts: Object.fromEntries(Object.entries(texts).filter(([, v]) => v !== undefined)),
    ...(cpe === undefined ? {} : { cpe }),
    ...(Object.keys(facts).length > 0 ? { facts } : {}),
    remarks
  };
}
