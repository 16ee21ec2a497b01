<!-- After a change of the assignment: check the class again, see what it would change, then decide. -->
<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { api, take } from '$lib/api/client';
  import { plural, points } from '$lib/words';
  import Notice from './Notice.svelte';

  let { assignment }: { assignment: number } = $props();
  const client = useQueryClient();
  const path = $derived({ params: { path: { assignment } } });
  const again = createQuery(() => ({
    queryKey: ['again', assignment],
    queryFn: () => take(api.GET('/api/assignments/{assignment}/again', path)),
    refetchInterval: (query) => {
      const data = query.state.data;
      return data && data.total > data.done + data.failed ? 600 : false;
    }
  }));
  const now = $derived(again.data);
  const ended = $derived(now ? now.done + now.failed : 0);
  let problem = $state('');

  async function act(work: Promise<unknown>) {
    problem = '';
    try {
      await work;
    } catch (error) {
      problem = (error as Error).message;
    }
    await client.invalidateQueries({ queryKey: ['again', assignment] });
  }
  async function takeOver() {
    await act(take(api.PUT('/api/assignments/{assignment}/again', path)));
    await client.invalidateQueries({ queryKey: ['class', assignment] });
    await client.invalidateQueries({ queryKey: ['desk'] });
  }
</script>

{#if now && (now.outdated || now.total)}
  <section class="mb-4 border-y border-line py-2" aria-label="Check again">
    {#if !now.total}
      <div class="flex flex-wrap items-center gap-3">
        <p>
          The assignment has changed since {plural(now.outdated, 'program')}
          {now.outdated === 1 ? 'was' : 'were'} checked.
        </p>
        <button
          class="press press-seal"
          onclick={() => act(take(api.POST('/api/assignments/{assignment}/again', path)))}>Check again</button
        >
        <span class="quiet">What it would change is shown first.</span>
      </div>
    {:else if ended < now.total}
      <p role="status">
        {ended} of {now.total} checked again
        <progress class="ml-2 align-middle" value={ended} max={now.total} aria-label="Checked again"
        ></progress>
      </p>
    {:else}
      <p>
        {#if now.changes.length}
          {plural(now.changes.length, 'program')} of {now.total} would change:
        {:else}
          Nothing would change for any of the {now.total}.
        {/if}
        {#if now.failed}<span class="text-seal">{now.failed} could not be checked.</span>{/if}
      </p>
      {#if now.changes.length}
        <ul class="my-2 grid max-h-48 grid-cols-2 gap-x-8 overflow-auto">
          {#each now.changes as c (c.submission)}
            <li class="flex justify-between gap-3 border-b border-line py-0.5">
              <a href="/desk/{c.submission}">{c.name}</a>
              <span class="quiet"
                >{points(c.total_before)} → {points(c.total_after)} of {points(
                  c.of_after
                )}{#if c.remarks_before !== c.remarks_after},
                  {c.remarks_before} → {plural(c.remarks_after, 'remark')}{/if}</span
              >
            </li>
          {/each}
        </ul>
      {/if}
      <div class="flex gap-2">
        <button class="press press-seal" onclick={takeOver}>Take it over</button>
        <button
          class="press"
          onclick={() => act(take(api.DELETE('/api/assignments/{assignment}/again', path)))}
          >Leave it as it is</button
        >
      </div>
      <p class="quiet mt-1">Marks you set and your own words stay either way.</p>
    {/if}
    {#if problem}<div class="mt-2"><Notice tone="wrong">{problem}</Notice></div>{/if}
  </section>
{/if}
