<script lang="ts">
  import { page } from '$app/state';

  let { assignment, title }: { assignment: number; title: string } = $props();
  const places = $derived([
    ['Set up', `/assignments/${assignment}/setup`],
    ['Collect', `/assignments/${assignment}/collect`],
    ['Class', `/assignments/${assignment}/class`],
    ['Return', `/assignments/${assignment}/return`]
  ] as const);
  const atDesk = $derived(page.url.pathname.startsWith('/desk'));
</script>

<nav aria-label="Places of this assignment" class="flex items-baseline gap-6 border-b border-line px-6">
  <h1 class="py-2 text-[1.15rem]">{title}</h1>
  {#each places as [name, href] (href)}
    <a
      {href}
      aria-current={page.url.pathname === href ? 'page' : undefined}
      class="border-b-[5px] border-double border-transparent pt-2 pb-1 no-underline hover:border-line aria-[current=page]:border-ink aria-[current=page]:font-semibold"
      >{name}</a
    >
    {#if name === 'Class' && atDesk}
      <span aria-current="page" class="border-b-[5px] border-double border-ink pt-2 pb-1 font-semibold"
        >Desk</span
      >
    {/if}
  {/each}
</nav>
