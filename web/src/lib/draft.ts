// What someone typed and has not kept yet, held in the browser until it is kept or thrown away.
const PREFIX = 'partitor-draft:';

export function readDraft<T>(name: string): T | null {
  try {
    const text = localStorage.getItem(PREFIX + name);
    return text === null ? null : (JSON.parse(text) as T);
  } catch {
    return null; // a browser that keeps nothing, or a draft of another version: there is no draft
  }
}

export function keepDraft(name: string, value: unknown): void {
  try {
    if (value === null) localStorage.removeItem(PREFIX + name);
    else localStorage.setItem(PREFIX + name, JSON.stringify(value));
  } catch {
    // a browser that keeps nothing: the text is still in the field
  }
}
