import type { Suggestion } from '$lib/api/client';

export interface Lines {
  file: string;
  start: number;
  text: string[];
}
export interface Suggested {
  /** What stands there now: the loop, the function, or where there is nothing new the calls themselves. */
  main: string;
  home: string;
  /** What else changes, file by file. */
  rest: { file: string; text: string }[];
}

const trimmed = (text: string) => text.replace(/^\n+|\n+$/g, '');
/** A text with the indent of its first line taken off all its lines. */
export function outdented(text: string): string {
  const indent = /^\s*/.exec(text)?.[0] ?? '';
  return text
    .split('\n')
    .map((line) => (line.startsWith(indent) ? line.slice(indent.length) : line.trimStart()))
    .join('\n');
}
const lines = (text: string) => text.split('\n').length;

/** What a suggestion puts in the place of the copies, of which `first` is the first. */
export function suggestedBy(
  suggestion: Pick<Suggestion, 'kind' | 'path' | 'changes'>,
  first?: Lines
): Suggested {
  const pieces = suggestion.changes
    .map((c) => ({ file: c.file || suggestion.path || '', text: trimmed(c.text) }))
    .filter((c) => c.text.trim());
  // A loop stands where the first copy stood; a function is what has most lines.
  const there = suggestion.changes.find(
    (c) => first && c.start_line < first.start + first.text.length && c.end_line >= first.start
  );
  const longest = pieces.reduce((most, { text }) => Math.max(most, lines(text)), 1);
  if (suggestion.kind !== 'loop' && longest === 1) {
    const calls = pieces.map((c) => c.text.trimStart());
    return { main: calls.join('\n'), home: pieces[0]?.file ?? '', rest: [] };
  }
  const function_ = pieces.find((c) => lines(c.text) === longest)?.text ?? '';
  const main = suggestion.kind === 'loop' && there ? trimmed(there.text) : function_;
  const home = pieces.find((c) => c.text === main)?.file ?? '';
  return { main, home, rest: pieces.filter((c) => c.text !== main) };
}
