import {
  autocompletion,
  completionKeymap,
  type CompletionContext,
  type CompletionResult
} from '@codemirror/autocomplete';
import { defaultKeymap, history, historyKeymap } from '@codemirror/commands';
import { yaml } from '@codemirror/lang-yaml';
import { HighlightStyle, syntaxHighlighting } from '@codemirror/language';
import { lintGutter, setDiagnostics, type Diagnostic } from '@codemirror/lint';
import { searchKeymap } from '@codemirror/search';
import { EditorState } from '@codemirror/state';
import { EditorView, keymap, lineNumbers } from '@codemirror/view';
import { tags } from '@lezer/highlight';
import type { Completion } from '$core/exchange';
import type { Issue } from '$core/kit';
import { describeIssue } from '$core/wording';

export interface TextEditor {
  /** Replaces the text, where it is another. */
  setText(text: string): void;
  setIssues(issues: readonly Issue[]): void;
  goToLine(line: number): void;
  destroy(): void;
}

interface Options {
  readonly text: string;
  readonly ontext: (text: string) => void;
  readonly complete: (text: string, offset: number) => Promise<Completion>;
}

const TYPES = { field: 'property', choice: 'enum', name: 'variable', word: 'keyword' } as const;

/**
 * The catalogue's text in an editor. It lives in a shadow root: there its style sheets are adopted ones, which the page's
 * Content-Security-Policy allows, while style elements are not.
 */
export function openTextEditor(host: HTMLElement, options: Options): TextEditor {
  const root = host.shadowRoot ?? host.attachShadow({ mode: 'open' });
  root.replaceChildren();
  const parent = document.createElement('div');
  parent.style.height = '100%';
  root.append(parent);
  let fromOutside = false;
  const view = new EditorView({
    root,
    parent,
    state: EditorState.create({
      doc: options.text,
      extensions: [
        lineNumbers(),
        history(),
        yaml(),
        lintGutter(),
        autocompletion({ override: [(context) => complete(context, options)], icons: false }),
        keymap.of([...completionKeymap, ...searchKeymap, ...historyKeymap, ...defaultKeymap]),
        syntaxHighlighting(HIGHLIGHT),
        EditorView.lineWrapping,
        EditorView.contentAttributes.of({ 'aria-label': 'Text of the catalogue', tabindex: '0' }),
        THEME,
        EditorView.updateListener.of((update) => {
          if (update.docChanged && !fromOutside) options.ontext(update.state.doc.toString());
        })
      ]
    })
  });
  return {
    setText(text) {
      if (view.state.doc.toString() === text) return;
      fromOutside = true;
      const before = view.state.doc.toString();
      view.dispatch({ changes: smallestChange(before, text) });
      fromOutside = false;
    },
    setIssues(issues) {
      view.dispatch(
        setDiagnostics(
          view.state,
          issues.flatMap((issue) => diagnosticOf(view.state, issue))
        )
      );
    },
    goToLine(line) {
      const at = view.state.doc.line(Math.min(Math.max(1, line), view.state.doc.lines)).from;
      view.dispatch({ selection: { anchor: at }, effects: EditorView.scrollIntoView(at, { y: 'center' }) });
      view.focus();
    },
    destroy: () => view.destroy()
  };
}

/** What differs, between what both texts begin and end with, so that the cursor stays where it is. */
function smallestChange(before: string, after: string): { from: number; to: number; insert: string } {
  const most = Math.min(before.length, after.length);
  let head = 0;
  while (head < most && before[head] === after[head]) head++;
  let tail = 0;
  while (tail < most - head && before[before.length - 1 - tail] === after[after.length - 1 - tail]) tail++;
  return { from: head, to: before.length - tail, insert: after.slice(head, after.length - tail) };
}

async function complete(
  context: CompletionContext,
  { complete: find }: Options
): Promise<CompletionResult | null> {
  if (!context.explicit && !context.matchBefore(/[A-Za-z0-9.]+/)) return null;
  const { from, options } = await find(context.state.doc.toString(), context.pos);
  if (options.length === 0) return null;
  return {
    from,
    options: options.map((o) => ({
      label: o.label,
      type: TYPES[o.kind],
      ...(o.about ? { detail: o.about } : {}),
      ...(o.kind === 'field' ? { apply: `${o.label}: ` } : {})
    }))
  };
}

function diagnosticOf(state: EditorState, issue: Issue): Diagnostic[] {
  if (issue.line === undefined || issue.line > state.doc.lines) return [];
  const line = state.doc.line(issue.line);
  const from = Math.min(line.to, line.from + (issue.column ?? 1) - 1);
  const { line: _line, column: _column, ...rest } = issue;
  void [_line, _column];
  return [
    { from, to: Math.max(from, line.to), severity: 'error', message: describeIssue({ ...rest, path: [] }) }
  ];
}

const HIGHLIGHT = HighlightStyle.define([
  { tag: [tags.propertyName, tags.definition(tags.propertyName)], color: 'var(--ink)', fontWeight: '650' },
  { tag: [tags.comment, tags.lineComment], color: 'var(--soft)', fontStyle: 'italic' },
  { tag: [tags.punctuation, tags.separator, tags.squareBracket, tags.brace], color: 'var(--soft)' }
]);

const THEME = EditorView.theme({
  '&': {
    height: '100%',
    color: 'var(--ink)',
    background: 'var(--sheet)',
    fontSize: '13px',
    border: '1px solid var(--line)'
  },
  '&.cm-focused': { outline: '2px solid var(--ink)', outlineOffset: '1px' },
  '.cm-scroller': { fontFamily: 'var(--font-mono)', lineHeight: '1.5', overflow: 'auto' },
  '.cm-content': { caretColor: 'var(--ink)' },
  '.cm-cursor': { borderLeftColor: 'var(--ink)' },
  '.cm-gutters': {
    background: 'var(--paper)',
    color: 'var(--soft)',
    border: '0',
    borderRight: '1px solid var(--hair)'
  },
  '&.cm-focused .cm-selectionBackground, .cm-selectionBackground, .cm-content ::selection': {
    background: 'var(--tint)'
  },
  '.cm-tooltip': {
    background: 'var(--sheet)',
    color: 'var(--ink)',
    border: '1.5px solid var(--ink)',
    fontFamily: 'var(--font-sans)'
  },
  '.cm-tooltip-autocomplete > ul > li': { padding: '2px 10px' },
  '.cm-tooltip-autocomplete > ul > li[aria-selected]': { background: 'var(--tint)', color: 'var(--ink)' },
  '.cm-completionDetail': { color: 'var(--soft)', fontStyle: 'normal', marginLeft: '12px' },
  '.cm-completionMatchedText': { textDecoration: 'none', fontWeight: '650' },
  '.cm-diagnostic': { padding: '5px 10px', borderLeft: '4px solid var(--ink)' },
  '.cm-lintRange-error': { background: 'none', borderBottom: '2px dotted var(--ink)' },
  '.cm-lint-marker': { content: '"!"', color: 'var(--ink)', fontWeight: '700' },
  '.cm-panels': { background: 'var(--sheet)', color: 'var(--ink)', borderTop: '1px solid var(--ink)' },
  '.cm-panels button, .cm-panels input': {
    background: 'var(--sheet)',
    color: 'var(--ink)',
    border: '1px solid var(--line)',
    backgroundImage: 'none'
  }
});
