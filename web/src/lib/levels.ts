// Which level a value reaches, and what moving a level's threshold does to a class.
import type { Spec } from '$lib/api/client';

export type Criterion = Spec['criteria'][number];
export type Level = Criterion['levels'][number];

export interface Threshold {
  level: number;
  bound: number;
}

/** The index of the first level, best first, that the value reaches. */
export function levelOf(levels: Level[], value: number): number {
  const index = levels.findIndex((l) => {
    if (typeof l.at_most === 'number') return value <= l.at_most + 1e-9;
    if (typeof l.at_least === 'number') return value >= l.at_least - 1e-9;
    return true;
  });
  return index < 0 ? levels.length - 1 : index;
}

/** The levels that have a threshold, with it. */
export function thresholdsOf(criterion: Criterion): Threshold[] {
  return criterion.levels.flatMap((l, level) => {
    const bound = l.at_most ?? l.at_least;
    return typeof bound === 'number' ? [{ level, bound }] : [];
  });
}

/** The criterion with one threshold moved; it never passes its neighbours. */
export function withThreshold(criterion: Criterion, level: number, wanted: number): Criterion {
  const others = thresholdsOf(criterion);
  const place = others.findIndex((t) => t.level === level);
  const rising = typeof criterion.levels[level]?.at_most === 'number';
  const better = others[place - 1]?.bound;
  const worse = others[place + 1]?.bound;
  const lowest = (rising ? better : worse) ?? 0;
  const highest = (rising ? worse : better) ?? Infinity;
  const bound = Math.round(Math.min(highest, Math.max(lowest, wanted)) * 1000) / 1000;
  const levels = criterion.levels.map((l, i) =>
    i === level ? (rising ? { ...l, at_most: bound } : { ...l, at_least: bound }) : l
  );
  return { ...criterion, levels };
}

/** How many of the values reach each level. */
export function countLevels(levels: Level[], values: number[]): number[] {
  const counts = levels.map(() => 0);
  for (const value of values) counts[levelOf(levels, value)]! += 1;
  return counts;
}
