import { describe, expect, it } from 'vitest';
import { countLevels, levelOf, thresholdsOf, withThreshold, type Criterion } from './levels';

const repetition = {
  id: 'repetition',
  title: 'Repetition',
  measure: 'repeated_share',
  points: 8,
  levels: [
    { points: 8, at_most: 0.05, text: '' },
    { points: 5, at_most: 0.2, text: '' },
    { points: 0, text: '' }
  ]
} as Criterion;
const present = {
  ...repetition,
  levels: [
    { points: 6, at_least: 1, text: '' },
    { points: 3, at_least: 0.5, text: '' },
    { points: 0, text: '' }
  ]
} as Criterion;

describe('levels', () => {
  it('a value reaches the best level whose threshold it keeps', () => {
    expect([0, 0.05, 0.051, 0.2, 0.7].map((v) => levelOf(repetition.levels, v))).toEqual([0, 0, 1, 1, 2]);
    expect([1, 0.99, 0.5, 0].map((v) => levelOf(present.levels, v))).toEqual([0, 1, 1, 2]);
  });
  it('thresholds move, but never past their neighbours', () => {
    expect(thresholdsOf(withThreshold(repetition, 0, 0.1)).map((t) => t.bound)).toEqual([0.1, 0.2]);
    expect(thresholdsOf(withThreshold(repetition, 0, 0.9)).map((t) => t.bound)).toEqual([0.2, 0.2]);
    expect(thresholdsOf(withThreshold(repetition, 1, 0.01)).map((t) => t.bound)).toEqual([0.05, 0.05]);
    expect(thresholdsOf(withThreshold(present, 1, 2)).map((t) => t.bound)).toEqual([1, 1]);
    expect(thresholdsOf(withThreshold(present, 0, 0.2)).map((t) => t.bound)).toEqual([0.5, 0.5]);
  });
  it('the class is counted anew', () => {
    const values = [0, 0.04, 0.15, 0.3];
    expect(countLevels(repetition.levels, values)).toEqual([2, 1, 1]);
    expect(countLevels(withThreshold(repetition, 1, 0.4).levels, values)).toEqual([2, 2, 0]);
  });
});
