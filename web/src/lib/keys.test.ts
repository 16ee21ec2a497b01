import { describe, expect, it, vi } from 'vitest';
import { keyboard } from './keys.svelte';

vi.stubGlobal('HTMLElement', class {});
vi.stubGlobal('document', { querySelector: () => null });

function press(key: string, more: Partial<KeyboardEvent> = {}) {
  const taken = vi.fn();
  keyboard.handle({ key, target: null, ...more, preventDefault: taken } as unknown as KeyboardEvent);
  return taken.mock.calls.length > 0;
}

describe('keys', () => {
  it('run what the screen says, and only while it is there', () => {
    const run = vi.fn();
    const leave = keyboard.add('Desk', [{ key: 'j', does: 'Next remark', run }]);
    expect(press('j')).toBe(true);
    expect(press('q')).toBe(false);
    leave();
    expect(press('j')).toBe(false);
    expect(run).toHaveBeenCalledTimes(1);
  });
  it('leave the browser its own', () => {
    const run = vi.fn();
    const leave = keyboard.add('Desk', [{ key: 'd', does: 'Done', run }]);
    for (const held of [{ ctrlKey: true }, { metaKey: true }, { altKey: true }]) press('d', held);
    expect(run).not.toHaveBeenCalled();
    leave();
  });
  it('show themselves', () => {
    expect(press('?')).toBe(true);
    expect(keyboard.helping).toBe(true);
    keyboard.helping = false;
  });
});
