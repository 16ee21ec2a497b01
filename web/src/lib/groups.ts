// Repeat groups: each gets a letter, an ink and a hatch, in reading order, the same on every screen.
import type { Finding, Report } from './api/client';

export const REPEATS = ['repeated-run', 'repeated-block', 'twin-functions'];
/** Dash patterns, so that ink is never the only sign. */
export const HATCHES = ['none', '5 2', '2 2', '8 2 2 2', '1 3', '6 3 1 3'];

export interface Group {
  letter: string;
  ink: string;
  hatch: string;
  number: number;
  finding: Finding;
}

export function inkOf(number: number): { ink: string; hatch: string; letter: string } {
  const index = (number - 1) % 6;
  return {
    ink: `var(--group-${index + 1})`,
    hatch: HATCHES[index] ?? 'none',
    letter: String.fromCharCode(64 + ((number - 1) % 26) + 1)
  };
}

export function groupsOf(report: Report | null): Group[] {
  if (!report) return [];
  return report.findings
    .filter((f) => REPEATS.includes(f.rule))
    .map((finding, i) => ({ ...inkOf(i + 1), number: i + 1, finding }));
}

export interface Bracket {
  group: Group;
  copy: number;
  start: number;
  end: number;
  lane: number;
}

/** Brackets of one file, put into lanes so that no two overlap; outer ones further left. */
export function bracketsOf(groups: Group[], path: string): Bracket[] {
  const all = groups.flatMap((group) =>
    group.finding.places
      .map((place, i) => ({ place, copy: i + 1 }))
      .filter(({ place }) => place.file === path)
      .map(({ place, copy }) => ({ group, copy, start: place.start_line, end: place.end_line, lane: 0 }))
  );
  all.sort((a, b) => b.end - b.start - (a.end - a.start) || a.start - b.start);
  const placed: Bracket[] = [];
  for (const bracket of all) {
    while (placed.some((p) => p.lane === bracket.lane && p.start <= bracket.end && bracket.start <= p.end)) {
      bracket.lane += 1;
    }
    placed.push(bracket);
  }
  return placed.sort((a, b) => a.start - b.start || a.lane - b.lane);
}
