import { describe, expect, it } from 'vitest';
import { formatMeasure, outcome, percent, plural, points } from './words';

describe('numbers as people read them', () => {
  it('shares are whole percents', () => {
    expect([percent(0), percent(0.424), percent(1)]).toEqual(['0 %', '42 %', '100 %']);
    expect(formatMeasure(0.5, 'share')).toBe('50 %');
  });
  it('other measures keep two places at the most', () => {
    expect([formatMeasure(12, 'count'), formatMeasure(2.345, 'lines')]).toEqual(['12', '2.35']);
  });
  it('points that are not given yet are a dash', () => {
    expect([points(null), points(undefined), points(0), points(2.5)]).toEqual(['–', '–', '0', '2.5']);
  });
  it('one is one', () => {
    expect([plural(1, 'remark'), plural(0, 'remark'), plural(2, 'copy', 'copies')]).toEqual([
      '1 remark',
      '0 remarks',
      '2 copies'
    ]);
  });
  it('a batch is all checked only where all of it was read and none failed', () => {
    expect([outcome(3, 0), outcome(3, 1), outcome(0, 0)]).toEqual([
      'All 3 checked',
      '2 of 3 checked, 1 failed',
      'None could be read'
    ]);
  });
});
