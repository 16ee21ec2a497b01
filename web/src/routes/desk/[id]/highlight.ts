// Which grammar colours which language; what has none is shown plain.
import { cpp } from '@codemirror/lang-cpp';
import { java } from '@codemirror/lang-java';
import { javascript } from '@codemirror/lang-javascript';
import { python } from '@codemirror/lang-python';
import { StreamLanguage, type StreamParser } from '@codemirror/language';
import { csharp } from '@codemirror/legacy-modes/mode/clike';
import { scheme } from '@codemirror/legacy-modes/mode/scheme';
import { swift } from '@codemirror/legacy-modes/mode/swift';
import { vb } from '@codemirror/legacy-modes/mode/vb';
import type { Extension } from '@codemirror/state';

const stream = (parser: StreamParser<unknown>): Extension => StreamLanguage.define(parser);

const grammars: Record<string, () => Extension> = {
  python,
  javascript: () => javascript(),
  typescript: () => javascript({ typescript: true }),
  java,
  c: cpp,
  cpp,
  arduino: cpp,
  csharp: () => stream(csharp),
  swift: () => stream(swift),
  scheme: () => stream(scheme),
  racket: () => stream(scheme),
  visualbasic: () => stream(vb),
  gamescript: () => javascript()
};

/** The colouring of a language by the id that the report gives it. */
export function grammarOf(language: string): Extension {
  return grammars[language]?.() ?? [];
}
