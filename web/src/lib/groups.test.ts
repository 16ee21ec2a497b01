import { describe, expect, it } from 'vitest';
import type { Finding } from './api/client';
import { bracketsOf, groupsOf, inkOf } from './groups';

function finding(id: string, rule: string, ...spans: [number, number][]): Finding {
  return {
    id,
    rule,
    message: '',
    weight: 1,
    suggestion: null,
    slots: [],
    pattern: '',
    advice: '',
    whole: false,
    subject: '',
    places: spans.map(([start_line, end_line]) => ({ file: 'a.py', start_line, end_line }))
  };
}

describe('brackets', () => {
  it('gives letters in reading order and starts the inks over after six', () => {
    expect([1, 2, 7].map((n) => inkOf(n).letter)).toEqual(['A', 'B', 'G']);
    expect(inkOf(7).ink).toBe(inkOf(1).ink);
    expect(inkOf(2).hatch).not.toBe(inkOf(1).hatch);
  });

  it('puts nested copies into another lane than the copy around them', () => {
    const report = {
      findings: [
        finding('f1', 'repeated-run', [1, 10], [11, 20]),
        finding('f2', 'repeated-run', [2, 3], [4, 5])
      ]
    };
    const brackets = bracketsOf(groupsOf(report as never), 'a.py');
    expect(brackets.map((b) => [b.group.letter, b.copy, b.lane])).toEqual([
      ['A', 1, 0],
      ['B', 1, 1],
      ['B', 2, 1],
      ['A', 2, 0]
    ]);
  });

  it('leaves out other files and findings that are no repeats', () => {
    const report = {
      findings: [finding('f1', 'vague-name', [1, 1]), finding('f2', 'repeated-block', [1, 3], [7, 9])]
    };
    expect(bracketsOf(groupsOf(report as never), 'b.py')).toEqual([]);
    expect(groupsOf(report as never)).toHaveLength(1);
  });
});
