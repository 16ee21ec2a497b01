import { beforeEach, describe, expect, it, vi } from 'vitest';
import { keepDraft, readDraft } from './draft';

class Store {
  private readonly kept = new Map<string, string>();
  getItem = (key: string) => this.kept.get(key) ?? null;
  setItem = (key: string, value: string) => void this.kept.set(key, value);
  removeItem = (key: string) => void this.kept.delete(key);
}

describe('drafts', () => {
  beforeEach(() => vi.stubGlobal('localStorage', new Store()));

  it('come back as they were, each under its own name', () => {
    keepDraft('remark-1', 'A fine heading.');
    keepDraft('assignment-2', { spec: { title: 'Tide log' }, starter: {} });
    expect(readDraft('remark-1')).toBe('A fine heading.');
    expect(readDraft('assignment-2')).toEqual({ spec: { title: 'Tide log' }, starter: {} });
    expect(readDraft('remark-3')).toBeNull();
  });
  it('are gone once they are kept or thrown away', () => {
    keepDraft('remark-1', 'words');
    keepDraft('remark-1', null);
    expect(readDraft('remark-1')).toBeNull();
  });
  it('of another version, or in a browser that keeps nothing, are none', () => {
    localStorage.setItem('partitor-draft:x', '{broken');
    expect(readDraft('x')).toBeNull();
    vi.stubGlobal('localStorage', undefined);
    expect(readDraft('x')).toBeNull();
    expect(() => keepDraft('x', 'words')).not.toThrow();
  });
});
