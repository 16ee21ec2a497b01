import { describe, expect, it } from 'vitest';
import { outdented, suggestedBy } from './suggested';

const change = (start: number, end: number, text: string, file = '') => ({
  start_line: start,
  end_line: end,
  text,
  file
});
const first = { file: 'main.py', start: 5, text: ['a', 'b'] };

it('moves a text to the left as a whole', () => {
  expect(outdented('    for i in x:\n        f(i)\n  g()')).toBe('for i in x:\n    f(i)\ng()');
});

describe('what is suggested', () => {
  it('is the function, with the calls besides', () => {
    const changes = [
      change(5, 6, 'show(1)'),
      change(9, 10, 'show(2)'),
      change(1, 0, '\n\ndef show(n):\n    print(n)\n')
    ];
    const shown = suggestedBy({ kind: 'function', path: 'main.py', changes }, first);
    expect(shown.main).toBe('def show(n):\n    print(n)');
    expect(shown.home).toBe('main.py');
    expect(shown.rest.map((c) => c.text)).toEqual(['show(1)', 'show(2)']);
  });
  it('is the calls themselves where the function is there already', () => {
    const changes = [change(4, 8, '    show(1)', 'main.py'), change(12, 16, 'show(2)', 'main.py')];
    const shown = suggestedBy({ kind: 'function', path: 'main.py', changes }, first);
    expect(shown).toEqual({ main: 'show(1)\nshow(2)', home: 'main.py', rest: [] });
  });
  it('is the loop in the place of the first copy, however short', () => {
    const changes = [
      change(1, 1, 'gates = [0] * 3'),
      change(5, 9, 'for i in range(3):\n    gates[i] = 1'),
      change(11, 14, 'for j in range(3):\n    print(gates[j])\n    print()')
    ];
    const shown = suggestedBy({ kind: 'loop', path: 'main.py', changes }, first);
    expect(shown.main).toBe('for i in range(3):\n    gates[i] = 1');
    expect(shown.rest.map((c) => c.text.split('\n')[0])).toEqual(['gates = [0] * 3', 'for j in range(3):']);
  });
});
