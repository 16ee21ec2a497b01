// A short program in each language, with a run in it, to try an assignment's limits on.
const javascript = (say: string, end: string) =>
  [310, 270, 230, 190]
    .map((cm, i) => `${say}("Gate ${i + 1}")${end}\n${say}("  opens at", ${cm})${end}\n`)
    .join('');
const inFunction = (head: string, line: (gate: number, cm: number) => string, end: string) =>
  head + [310, 270, 230, 190].map((cm, i) => line(i + 1, cm)).join('') + end;

const c = inFunction(
  '#include <stdio.h>\n\nint main(void) {\n',
  (gate, cm) => `    printf("Gate ${gate}\\n");\n    printf("  opens at %d\\n", ${cm});\n`,
  '    return 0;\n}\n'
);
const sketch = inFunction(
  'void setup() {\n  Serial.begin(9600);\n',
  (gate, cm) => `  digitalWrite(${gate + 3}, HIGH);\n  delay(${cm});\n`,
  '}\n\nvoid loop() {\n}\n'
);
const java = inFunction(
  'public class Main {\n    public static void main(String[] args) {\n',
  (gate, cm) =>
    `        System.out.println("Gate ${gate}");\n        System.out.println("  opens at " + ${cm});\n`,
  '    }\n}\n'
);
const csharp = inFunction(
  'class Program {\n    static void Main() {\n',
  (gate, cm) =>
    `        Console.WriteLine("Gate ${gate}");\n        Console.WriteLine("  opens at " + ${cm});\n`,
  '    }\n}\n'
);
const swift = inFunction('', (gate, cm) => `print("Gate ${gate}")\nprint("  opens at", ${cm})\n`, '');
const macro = inFunction(
  'Sub OpenGates()\n',
  (gate, cm) => `    Debug.Print "Gate ${gate}"\n    Debug.Print "  opens at "; ${cm}\n`,
  'End Sub\n'
);
const lists = (head: string, say: string) =>
  inFunction(head, (gate, cm) => `(${say} "Gate ${gate}")\n(${say} ${cm})\n`, '');
const samples: Record<string, string> = {
  javascript: javascript('console.log', ';'),
  typescript: javascript('console.log', ';'),
  java,
  c,
  cpp: c,
  arduino: sketch,
  csharp,
  swift,
  visualbasic: macro,
  racket: lists('#lang racket\n\n', 'displayln'),
  scheme: lists('', 'display')
};

/** The sample for a language; Python's where there is none of its own. */
export function sampleOf(language: string): string {
  return samples[language] ?? javascript('print', '');
}

/** True for a text that is one of ours, untouched. */
export function isSample(text: string): boolean {
  return text === sampleOf('python') || Object.values(samples).includes(text);
}
