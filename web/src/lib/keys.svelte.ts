import { untrack } from 'svelte';

// Keys: each screen says which it has; `?` shows them. Keys never fire while someone types.
export interface Key {
  key: string;
  does: string;
  run: () => void;
}

class Keyboard {
  groups = $state<{ title: string; keys: Key[] }[]>([]);
  helping = $state(false);

  add(title: string, keys: Key[]): () => void {
    const group = { title, keys };
    untrack(() => (this.groups = [...this.groups.filter((g) => g.title !== title), group]));
    return () => {
      untrack(() => (this.groups = this.groups.filter((g) => g.title !== title)));
    };
  }

  handle(event: KeyboardEvent): void {
    if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return;
    if (document.querySelector('[role="dialog"]')) return;
    if (event.key === '?') {
      this.helping = true;
      event.preventDefault();
      return;
    }
    for (const group of [...this.groups].reverse()) {
      const found = group.keys.find((k) => k.key === event.key);
      if (found) {
        event.preventDefault();
        found.run();
        return;
      }
    }
  }
}

function isTyping(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false;
  return target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName);
}

export const keyboard = new Keyboard();
