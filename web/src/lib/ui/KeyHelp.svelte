<script lang="ts">
  import { keyboard } from '$lib/keys.svelte';
  import Dialog from './Dialog.svelte';
</script>

<Dialog bind:open={keyboard.helping} title="Keys">
  {#each keyboard.groups as group (group.title)}
    <h3 class="mt-3 mb-1">{group.title}</h3>
    <dl class="grid grid-cols-[4rem_1fr] gap-y-1">
      {#each group.keys as key (key.key)}
        <dt><span class="key">{key.key.replace('Arrow', '')}</span></dt>
        <dd>{key.does}</dd>
      {/each}
    </dl>
  {/each}
  <dl class="mt-3 grid grid-cols-[4rem_1fr]">
    <dt><span class="key">?</span></dt>
    <dd>Show these keys</dd>
  </dl>
</Dialog>
