import {
  type Estate,
  LONG_LISTS,
  type System,
  type Workspace,
  WORKSPACE_FORMAT,
  WORKSPACE_LINES_FORMAT,
  WORKSPACE_VERSION
} from '../estate';
import { fail, type Issue, type Result, succeed } from '../kit';
import { findTwice, parseJson, readWorkspace } from './workspace-file';
import { issuesOfZod } from './zod-issues';

/** Signs of one line at most: the first may carry a catalogue and worksheets. */
const MAX_LINE = 256 * 1024 * 1024;
const MAX_ISSUES = 50;
/** Signs of text handed on at once. */
const PIECE = 1 << 20;
const BREAK = 10;

/**
 * A workspace with one record a line, in pieces of whole lines: first everything but the systems, with how many there are, then a system
 * a line. For estates whose single JSON would be longer than any text may be; `readWorkspaceLines` reads it back to an equal value.
 */
export function* formatWorkspaceLines(estate: Estate, catalogue: Workspace['catalogue']): Generator<string> {
  const { systems, ...rest } = estate;
  const head = { format: WORKSPACE_LINES_FORMAT, version: WORKSPACE_VERSION, systems: systems.length };
  let piece = `${JSON.stringify({ ...head, ...rest, catalogue })}\n`;
  for (const system of systems) {
    piece += `${JSON.stringify(system)}\n`;
    if (piece.length < PIECE) continue;
    yield piece;
    piece = '';
  }
  if (piece !== '') yield piece;
}

/** Whether a file is one of these, by its first bytes. */
export function looksLikeWorkspaceLines(first: Uint8Array): boolean {
  const start = new TextDecoder('utf-8').decode(first.subarray(0, 200)).replace(/^\uFEFF/, '');
  return /^\s*\{\s*"format"\s*:\s*"orange-stair-workspace-lines"/.test(start);
}

/**
 * Reads a workspace of one record a line from the bytes of its file as they come (UTF-8), never holding more of its text than a line.
 * Each line passes the guards every file passes. All or nothing: a file that ends early, or has a line too many, is refused by what its
 * first line says. Issues name their line. Cost: one reading of each line.
 */
export async function readWorkspaceLines(
  bytes: AsyncIterable<Uint8Array> | Iterable<Uint8Array>
): Promise<Result<Workspace>> {
  const reader = new LineReader();
  for await (const chunk of bytes) if (!reader.take(chunk)) break;
  return reader.finish();
}

class LineReader {
  readonly #decoder = new TextDecoder('utf-8', { fatal: true });
  readonly #systems: System[] = [];
  readonly #issues: Issue[] = [];
  /** Bytes of a line that has not ended yet. */
  #begun: Uint8Array[] = [];
  #begunLength = 0;
  #line = 0;
  #head: { readonly workspace: Workspace; readonly systems: unknown } | undefined;

  /** False: there is no use in reading on. */
  take(chunk: Uint8Array): boolean {
    let from = 0;
    for (let end = chunk.indexOf(BREAK); end >= 0; end = chunk.indexOf(BREAK, from)) {
      this.#read(this.#whole(chunk.subarray(from, end)));
      if (this.#isOver) return false;
      from = end + 1;
    }
    const rest = chunk.slice(from);
    this.#begun.push(rest);
    this.#begunLength += rest.length;
    if (this.#begunLength > MAX_LINE)
      this.#refuse({ code: 'too-big', detail: `${MAX_LINE / 1024 / 1024} MB` });
    return !this.#isOver;
  }

  finish(): Result<Workspace> {
    if (this.#begunLength > 0 && !this.#isOver) this.#read(this.#whole(new Uint8Array()));
    if (this.#issues.length > 0) return fail(...this.#issues.slice(0, MAX_ISSUES));
    if (!this.#head) return fail({ code: 'empty' });
    const { workspace, systems: said } = this.#head;
    if (said !== this.#systems.length)
      return fail({ code: 'other-number', detail: `${String(said)}, and there are ${this.#systems.length}` });
    const twice = findTwice(this.#systems.map((s) => s.id));
    if (twice !== undefined) return fail({ code: 'duplicate-id', detail: twice, path: ['systems'] });
    return succeed({ ...workspace, systems: this.#systems });
  }

  get #isOver(): boolean {
    return this.#issues.length >= MAX_ISSUES || (this.#issues.length > 0 && !this.#head);
  }

  #refuse(issue: Issue): void {
    this.#issues.push({ ...issue, line: this.#line + 1 });
  }

  /** The bytes of a line, whichever chunks they came in. */
  #whole(last: Uint8Array): Uint8Array {
    if (this.#begun.length === 0) return last;
    const parts = [...this.#begun, last];
    const line = new Uint8Array(this.#begunLength + last.length);
    let at = 0;
    for (const part of parts) {
      line.set(part, at);
      at += part.length;
    }
    [this.#begun, this.#begunLength] = [[], 0];
    return line;
  }

  #read(bytes: Uint8Array): void {
    const text = this.#decode(bytes);
    // The last line may be empty.
    if (text !== undefined && text.trim() !== '') this.#readLine(text);
    this.#line++;
  }

  #decode(bytes: Uint8Array): string | undefined {
    try {
      return this.#decoder.decode(bytes);
    } catch {
      this.#refuse({ code: 'not-utf-8' });
      return undefined;
    }
  }

  #readLine(text: string): void {
    const json = parseJson(text);
    if (!json.ok) return json.issues.forEach((issue) => this.#refuse(issue));
    if (!this.#head) return this.#readHead(json.value);
    const { entry, most } = LONG_LISTS.systems;
    if (this.#systems.length >= most) return this.#refuse({ code: 'too-many-rows', detail: String(most) });
    const parsed = entry.safeParse(json.value);
    if (parsed.success) this.#systems.push(parsed.data);
    else for (const issue of issuesOfZod(parsed.error, json.value)) this.#refuse(issue);
  }

  #readHead(value: unknown): void {
    if (typeof value !== 'object' || value === null || Array.isArray(value))
      return this.#refuse({ code: 'not-an-object' });
    const { systems, ...rest } = value as Record<string, unknown>;
    if (rest['format'] !== WORKSPACE_LINES_FORMAT)
      return this.#refuse({ code: 'wrong-format', detail: WORKSPACE_LINES_FORMAT });
    const read = readWorkspace({ ...rest, format: WORKSPACE_FORMAT, systems: [] });
    if (read.ok) this.#head = { workspace: read.value, systems };
    else for (const issue of read.issues) this.#refuse(issue);
  }
}
