// Two people at one thing: the server refuses a write that was made on an old version; the person sees both and chooses.
import { ApiError } from '$lib/api/client';

export type Fields = Record<string, unknown>;

class Conflict {
  open = $state(false);
  said = $state('');
  mine = $state<[string, string][]>([]);
  theirs = $state<[string, string][]>([]);
  #choose: ((which: 'mine' | 'theirs') => void) | null = null;

  ask(said: string, mine: Fields, theirs: Fields): Promise<'mine' | 'theirs'> {
    this.choose('theirs');
    this.said = said;
    this.mine = rows(mine);
    this.theirs = rows(theirs);
    this.open = true;
    return new Promise((resolve) => (this.#choose = resolve));
  }

  choose(which: 'mine' | 'theirs') {
    this.open = false;
    this.#choose?.(which);
    this.#choose = null;
  }
}

export const conflict = new Conflict();

const NAMES: Record<string, string> = {
  hint: 'hint level',
  held: 'held back',
  words: 'words',
  state: 'decision',
  level: 'level',
  reason: 'reason'
};

/** A record's fields as a person reads them; what is long in them (an assignment) is not spelled out. */
export function rows(fields: Fields): [string, string][] {
  return Object.entries(fields).map(([name, value]) => [NAMES[name] ?? name, shown(value)]);
}

function shown(value: unknown): string {
  if (value === null || value === '') return 'none';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  return typeof value === 'object' ? 'as on the page' : String(value);
}

/**
 * Write on a version. Where somebody was quicker, show both: with "mine" it is written over theirs; with "theirs" the
 * answer is null, and the caller loads afresh.
 */
export async function written<T>(
  write: (version: number | undefined) => Promise<T>,
  version: number | undefined,
  mine: Fields
): Promise<T | null> {
  try {
    return await write(version);
  } catch (problem) {
    if (!(problem instanceof ApiError) || problem.status !== 409 || !problem.current) throw problem;
    const which = await conflict.ask(problem.message, mine, problem.current);
    return which === 'mine' ? await write(undefined) : null;
  }
}
