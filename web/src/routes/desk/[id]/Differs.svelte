<script lang="ts">
  import type { Finding } from '$lib/api/client';

  let { finding }: { finding: Finding } = $props();
  const copies = $derived(finding.slots[0]?.values.length ?? 0);
</script>

<section class="mt-3" aria-label="What differs">
  <h4 class="font-serif font-semibold">What differs</h4>
  {#if finding.slots.length}
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <div class="overflow-x-auto" tabindex="0" role="region" aria-label="Table of what differs">
      <table class="mono text-[12px]">
        <thead>
          <tr>
            <th></th>
            {#each { length: copies }, i (i)}<th class="px-2 text-left font-normal text-soft" scope="col"
                >{i + 1}</th
              >{/each}
          </tr>
        </thead>
        <tbody>
          {#each finding.slots as slot, i (i)}
            <tr class="border-t border-line">
              <th scope="row" class="pr-3 text-left font-medium">{slot.name}</th>
              {#each slot.values as value, k (k)}<td class="px-2 whitespace-nowrap">{value}</td>{/each}
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
  {:else}
    <p class="quiet">Nothing: the copies are the same.</p>
  {/if}
</section>
