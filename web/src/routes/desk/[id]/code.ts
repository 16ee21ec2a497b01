// The read-only editor: our own theme, margin brackets as a score marks repeats, lit lines.
import {
  codeFolding,
  foldGutter,
  foldService,
  HighlightStyle,
  syntaxHighlighting
} from '@codemirror/language';
import { EditorState, RangeSetBuilder, StateEffect, StateField, type Extension } from '@codemirror/state';
import {
  Decoration,
  EditorView,
  gutter,
  GutterMarker,
  highlightSpecialChars,
  lineNumbers,
  type DecorationSet
} from '@codemirror/view';
import { tags } from '@lezer/highlight';
import type { Bracket } from '$lib/groups';
import { grammarOf } from './highlight';

const colours = HighlightStyle.define([
  { tag: [tags.keyword, tags.controlKeyword, tags.definitionKeyword], color: 'var(--code-word)' },
  { tag: [tags.string, tags.special(tags.string)], color: 'var(--code-text)' },
  { tag: [tags.number, tags.bool, tags.null], color: 'var(--code-number)' },
  { tag: tags.comment, color: 'var(--code-note)', fontStyle: 'italic' },
  { tag: tags.function(tags.definition(tags.variableName)), fontWeight: '500' }
]);

const theme = EditorView.theme({
  '&': { height: '100%', fontSize: '13px', backgroundColor: 'var(--ground)', color: 'var(--ink)' },
  '&.cm-focused': { outline: 'none' },
  '.cm-scroller': { fontFamily: 'var(--font-mono)', lineHeight: '1.6' },
  '.cm-gutters': { backgroundColor: 'var(--ground)', color: 'var(--soft)', border: 'none' },
  '.cm-line.lit': { backgroundColor: 'var(--lit)' },
  '.cm-brackets': { minWidth: '5.2rem' },
  '.cm-foldPlaceholder': { backgroundColor: 'var(--sunk)', color: 'var(--soft)', border: 'none' },
  '.cm-selectionBackground, &.cm-focused .cm-selectionBackground': {
    backgroundColor: 'var(--sunk) !important'
  }
});

class BracketMarker extends GutterMarker {
  constructor(
    private marks: { lane: number; ink: string; label: string; part: string; hatch: boolean; lit: boolean }[]
  ) {
    super();
  }
  override eq(other: BracketMarker): boolean {
    return JSON.stringify(other.marks) === JSON.stringify(this.marks);
  }
  override toDOM(): Node {
    const box = document.createElement('div');
    box.className = 'bracket-row';
    for (const mark of this.marks) {
      const piece = document.createElement('div');
      piece.className = `bracket ${mark.part}${mark.hatch ? ' hatch' : ''}${mark.lit ? ' lit' : ''}`;
      piece.style.setProperty('--lane', String(mark.lane));
      piece.style.setProperty('--ink-here', mark.ink);
      if (mark.label) {
        const label = document.createElement('span');
        label.textContent = mark.label;
        piece.append(label);
      }
      box.append(piece);
    }
    return box;
  }
}

function markersFor(brackets: Bracket[], lit: string, line: number): BracketMarker | null {
  const here = brackets.filter((b) => b.start <= line && line <= b.end);
  if (!here.length) return null;
  return new BracketMarker(
    here.map((b) => ({
      lane: b.lane,
      ink: b.group.ink,
      hatch: b.group.number % 2 === 0,
      lit: b.group.finding.id === lit,
      label: b.start === line ? `${b.group.letter}${b.copy}` : '',
      part: b.start === b.end ? 'single' : b.start === line ? 'top' : b.end === line ? 'bottom' : 'middle'
    }))
  );
}

export interface Span {
  start: number;
  end: number;
}
const lightUp = StateEffect.define<Span[]>();
const litLines = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update(value, transaction) {
    for (const effect of transaction.effects) {
      if (!effect.is(lightUp)) continue;
      const builder = new RangeSetBuilder<Decoration>();
      const lines = new Set<number>();
      for (const span of effect.value) {
        for (let n = span.start; n <= Math.min(span.end, transaction.state.doc.lines); n++) lines.add(n);
      }
      for (const n of [...lines].sort((a, b) => a - b)) {
        const at = transaction.state.doc.line(n).from;
        builder.add(at, at, Decoration.line({ class: 'lit' }));
      }
      return builder.finish();
    }
    return value;
  },
  provide: (field) => EditorView.decorations.from(field)
});

/** Procedures fold by the spans the report gives, whatever the language. */
function folding(procedures: Span[]): Extension {
  return [
    foldService.of((state, from) => {
      const line = state.doc.lineAt(from);
      const found = procedures.find((p) => p.start === line.number && p.end > p.start);
      return found ? { from: line.to, to: state.doc.line(Math.min(found.end, state.doc.lines)).to } : null;
    }),
    codeFolding({ placeholderText: ' …' }),
    foldGutter()
  ];
}

export function makeEditor(
  parent: HTMLElement,
  text: string,
  language: string,
  brackets: Bracket[],
  procedures: Span[],
  lit: string,
  pick: (line: number) => void
): EditorView {
  const nonce = document.querySelector<HTMLMetaElement>('meta[name="csp-nonce"]')?.content ?? '';
  const state = EditorState.create({
    doc: text,
    extensions: [
      EditorView.cspNonce.of(nonce),
      EditorState.readOnly.of(true),
      EditorView.editable.of(false),
      EditorView.contentAttributes.of({
        'aria-label': 'Program',
        tabindex: '0',
        role: 'textbox',
        'aria-readonly': 'true',
        'aria-multiline': 'true'
      }),
      lineNumbers(),
      highlightSpecialChars(),
      gutter({
        class: 'cm-brackets',
        lineMarker: (view, line) => markersFor(brackets, lit, view.state.doc.lineAt(line.from).number),
        domEventHandlers: {
          click: (view, line) => {
            pick(view.state.doc.lineAt(line.from).number);
            return true;
          }
        }
      }),
      folding(procedures),
      grammarOf(language),
      syntaxHighlighting(colours),
      litLines,
      theme
    ]
  });
  return new EditorView({ state, parent });
}

/** Light the spans up and bring the first into sight. */
export function light(view: EditorView, spans: Span[]): void {
  view.dispatch({ effects: lightUp.of(spans) });
  const first = spans[0];
  if (first && first.start <= view.state.doc.lines) {
    const at = view.state.doc.line(first.start).from;
    view.dispatch({ effects: EditorView.scrollIntoView(at, { y: 'start', yMargin: 60 }) });
  }
}
