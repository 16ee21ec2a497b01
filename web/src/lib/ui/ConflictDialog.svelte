<script lang="ts">
  import { conflict } from '$lib/conflict.svelte';
  import Dialog from './Dialog.svelte';
</script>

<Dialog
  bind:open={() => conflict.open, (open) => open || conflict.choose('theirs')}
  title="Someone was quicker"
>
  <p>{conflict.said}</p>
  <div class="my-4 grid grid-cols-2 gap-6">
    {#each [{ title: 'Yours, not saved yet', rows: conflict.mine }, { title: 'Theirs, as it is now', rows: conflict.theirs }] as side (side.title)}
      <section aria-label={side.title}>
        <h3 class="border-b border-line pb-1">{side.title}</h3>
        <dl>
          {#each side.rows as [name, value] (name)}
            <dt class="quiet mt-2">{name}</dt>
            <dd class="max-h-40 overflow-auto whitespace-pre-wrap">{value}</dd>
          {/each}
        </dl>
      </section>
    {/each}
  </div>
  <div class="flex gap-3">
    <button class="press" onclick={() => conflict.choose('mine')}>Save mine over theirs</button>
    <button class="press" onclick={() => conflict.choose('theirs')}>Leave theirs</button>
  </div>
</Dialog>
