import { describe, expect, it } from 'vitest';
import { ApiError } from '$lib/api/client';
import { conflict, rows, written } from './conflict.svelte';

const quicker = () => new ApiError('Rolf changed this remark.', 409, { words: 'Theirs', state: 'open' });

describe('a write on an old version', () => {
  it('goes through where nobody was quicker', async () => {
    expect(await written((version) => Promise.resolve(version), 3, {})).toBe(3);
  });

  it('shows what is written and all that is there, and writes over theirs when asked to', async () => {
    const versions: (number | undefined)[] = [];
    const answer = written(
      (version) => {
        versions.push(version);
        return version === undefined ? Promise.resolve('kept') : Promise.reject(quicker());
      },
      3,
      { words: 'Mine' }
    );
    await new Promise((go) => setTimeout(go));
    expect([conflict.open, conflict.mine, conflict.theirs]).toEqual([
      true,
      [['words', 'Mine']],
      [
        ['words', 'Theirs'],
        ['decision', 'open']
      ]
    ]);
    conflict.choose('mine');
    expect(await answer).toBe('kept');
    expect(versions).toEqual([3, undefined]);
  });

  it('is left where theirs is chosen', async () => {
    const answer = written(() => Promise.reject(quicker()), 3, { words: 'Mine' });
    await new Promise((go) => setTimeout(go));
    conflict.choose('theirs');
    expect(await answer).toBeNull();
  });

  it('says other errors as they are', async () => {
    await expect(written(() => Promise.reject(new ApiError('No.', 400)), 3, {})).rejects.toThrow('No.');
  });
});

it('shows values as a person reads them', () => {
  expect(rows({ held: true, words: '', spec: {} })).toEqual([
    ['held back', 'yes'],
    ['words', 'none'],
    ['spec', 'as on the page']
  ]);
});
