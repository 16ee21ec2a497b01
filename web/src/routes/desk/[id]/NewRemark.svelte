<script lang="ts">
  import { untrack } from 'svelte';
  import { keepDraft, readDraft } from '$lib/draft';

  let {
    submission,
    add
  }: { submission: number; add: (words: string, line: number | null) => Promise<void> } = $props();
  const name = untrack(() => `remark-${submission}`);
  let words = $state(readDraft<string>(name) ?? '');
  $effect(() => keepDraft(name, words || null));
  let line = $state<number | null>(null);

  async function send(event: SubmitEvent) {
    event.preventDefault();
    await add(words, line);
    words = '';
    line = null;
  }
</script>

<form onsubmit={send} class="grid gap-2 px-4 py-3">
  <label class="grid gap-1">
    <span class="quiet">A remark of your own</span>
    <textarea rows="2" required bind:value={words}></textarea>
  </label>
  <div class="flex items-center gap-3">
    <label class="flex items-center gap-2"
      ><span class="quiet">to line</span><input
        class="w-20"
        type="number"
        min="1"
        placeholder="all"
        bind:value={line}
      /></label
    >
    <button class="press">Add</button>
  </div>
</form>
