<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { Schemas } from '$lib/api/client';

  let {
    data,
    chosen,
    choose,
    children
  }: {
    data: Schemas['Class'] | undefined;
    chosen: string;
    choose: (value: string) => void;
    children: Snippet;
  } = $props();
</script>

<aside class="overflow-auto border-l border-line px-5 pt-4 pb-10" aria-label="The class as a whole">
  {@render children()}
  <h2 class="mt-4">What they share</h2>
  <ul>
    {#each data?.patterns ?? [] as p, i (i)}
      <li class="border-b border-line py-2">
        <button
          class="block w-full text-left hover:underline"
          aria-pressed={chosen === String(i)}
          onclick={() => choose(chosen === String(i) ? '' : String(i))}
        >
          <strong>{p.submissions.length} of {data?.members.length}</strong>
          {p.title}{#if chosen === String(i)}<span class="text-done"> (shown)</span>{/if}
        </button>
        {#if p.example}<pre class="mt-1 max-h-24 overflow-hidden text-[11px] text-soft">{p.example}</pre>{/if}
      </li>
    {:else}
      <li class="quiet py-2">Nothing is written alike by two or more.</li>
    {/each}
  </ul>
  {#if data?.missing.length}
    <h2 class="mt-5">Handed in nothing</h2>
    <p class="quiet">{data.missing.join(', ')}</p>
  {/if}
  {#if data?.unread.length}
    <h2 class="mt-5 text-seal">Could not be read</h2>
    <ul>
      {#each data.unread as u, k (k)}<li class="border-b border-line py-1">
          {u.name}<span class="quiet block">{u.why}</span>
        </li>{/each}
    </ul>
  {/if}
</aside>
