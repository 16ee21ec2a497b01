<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, take, type Spec } from '$lib/api/client';
  import { formatMeasure } from '$lib/words';

  let { criteria = $bindable() }: { criteria: Spec['criteria'] } = $props();
  const measures = createQuery(() => ({
    queryKey: ['measures'],
    queryFn: () => take(api.GET('/api/measures'))
  }));
  const byId = $derived(new Map((measures.data ?? []).map((m) => [m.id, m])));

  function bound(level: Spec['criteria'][number]['levels'][number], measure: string): string {
    const unit = byId.get(measure)?.unit ?? '';
    if (level.at_most !== null && level.at_most !== undefined)
      return `up to ${formatMeasure(level.at_most, unit)}`;
    if (level.at_least !== null && level.at_least !== undefined)
      return `from ${formatMeasure(level.at_least, unit)}`;
    return measure === 'manual' ? '' : 'otherwise';
  }
  const total = $derived(criteria.reduce((sum, c) => sum + c.points, 0));
</script>

<section>
  <h2 class="mb-2 flex border-b border-line pb-1">
    Rubric <span class="grow"></span><span class="quiet font-sans font-normal">{total} points</span>
  </h2>
  <div class="grid gap-4">
    {#each criteria as c (c.id)}
      <div class="grid grid-cols-[11rem_1fr] gap-x-6">
        <div>
          <input
            class="w-full font-serif font-semibold"
            aria-label="Title of criterion {c.id}"
            bind:value={c.title}
          />
          <p class="quiet mt-1" title={byId.get(c.measure)?.definition}>
            {c.measure === 'manual'
              ? 'Judged by a person'
              : `By ${(byId.get(c.measure)?.title ?? c.measure).toLowerCase()}`}
          </p>
        </div>
        <ol>
          {#each c.levels as level, i (i)}
            <li class="grid grid-cols-[4.5rem_6.5rem_1fr] items-baseline gap-x-3 border-b border-line py-1">
              <span class="flex items-baseline gap-1">
                <input
                  class="w-14"
                  type="number"
                  min="0"
                  max={c.points}
                  step="0.5"
                  aria-label="Points of level {i + 1} of {c.title}"
                  bind:value={level.points}
                />
              </span>
              <span class="quiet">{bound(level, c.measure)}</span>
              <input
                class="w-full"
                aria-label="Wording of level {i + 1} of {c.title}"
                bind:value={level.text}
              />
            </li>
          {/each}
        </ol>
      </div>
    {/each}
  </div>
</section>
