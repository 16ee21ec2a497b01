// Numbers and states as people read them.
export function percent(share: number): string {
  return `${Math.round(share * 100)} %`;
}

export function formatMeasure(value: number, unit: string): string {
  return unit === 'share' ? percent(value) : `${Math.round(value * 100) / 100}`;
}

export function points(value: number | null | undefined): string {
  return value === null || value === undefined ? '–' : `${Math.round(value * 100) / 100}`;
}

export function plural(count: number, one: string, many = `${one}s`): string {
  return `${count} ${count === 1 ? one : many}`;
}

/** What became of a batch that is done. */
export function outcome(total: number, failed: number): string {
  if (!total) return 'None could be read';
  return failed ? `${total - failed} of ${total} checked, ${failed} failed` : `All ${total} checked`;
}

export const STATES: Record<string, string> = {
  queued: 'waiting',
  running: 'being checked',
  done: 'checked',
  failed: 'failed',
  cancelled: 'cancelled'
};

export const HINTS: Record<string, string> = {
  where: 'Where: the place',
  shape: 'Shape: the outline with blanks',
  answer: 'Answer: the code'
};
