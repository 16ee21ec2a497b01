<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { api, take, type Schemas } from '$lib/api/client';
  import Notice from '$lib/ui/Notice.svelte';
  import { outcome, plural, STATES } from '$lib/words';

  let {
    batch,
    roster,
    assignment,
    changed
  }: {
    batch: Schemas['Batch'];
    roster: Schemas['RosterEntry'][];
    assignment: number;
    changed: () => Promise<void>;
  } = $props();
  const moving = $derived(batch.state === 'received' || batch.state === 'checking');
  let start = $state(0);
  // The first page comes with the list of batches; a later one is fetched, and again while the batch moves.
  const later = createQuery(() => ({
    queryKey: ['batch', batch.id, start],
    enabled: start > 0,
    queryFn: () =>
      take(api.GET('/api/batches/{batch}', { params: { path: { batch: batch.id }, query: { start } } })),
    refetchInterval: moving ? 2000 : (false as const)
  }));
  const shown = $derived(start > 0 ? (later.data?.submissions ?? []) : batch.submissions);
  const client = useQueryClient();
  let problem = $state('');

  async function match(submission: number, value: string) {
    problem = '';
    try {
      const student = value ? Number(value) : null;
      await take(
        api.PUT('/api/submissions/{submission}/student', {
          params: { path: { submission } },
          body: { student }
        })
      );
    } catch (error) {
      problem = (error as Error).message;
    }
    await client.invalidateQueries({ queryKey: ['batch', batch.id] });
    await changed();
  }
  async function cancel() {
    await take(api.DELETE('/api/batches/{batch}', { params: { path: { batch: batch.id } } }));
    await changed();
  }
</script>

<section class="mt-8" aria-label="Batch {batch.file_name}">
  <div class="flex items-baseline gap-4 border-b border-line pb-1">
    <h2>{batch.file_name}</h2>
    <span class="quiet">{new Date(batch.created).toLocaleString()}</span>
    <span class="grow"></span>
    <span role="status" data-state={batch.state}>
      {#if batch.state === 'received'}
        {batch.total ? `Being unpacked: ${batch.done} of ${batch.total} checked so far` : 'Being unpacked…'}
      {:else if batch.state === 'checking'}
        {batch.done} of {batch.total} checked
      {:else if batch.state === 'cancelled'}
        Cancelled; {batch.checked} of {batch.total} were checked
      {:else if batch.state === 'done'}
        <span class={batch.total && !batch.failed ? 'text-done' : 'text-seal'}
          >{outcome(batch.total, batch.failed)}</span
        >
        {#if batch.total}· <a href="/assignments/{assignment}/class">look at the class</a>{/if}
      {/if}
    </span>
    {#if moving}<button class="press" onclick={cancel}>Cancel</button>{/if}
  </div>
  {#if moving && batch.total}
    <progress class="mt-2 h-1 w-full" value={batch.done} max={batch.total} aria-label="Checked"></progress>
  {/if}
  {#if batch.problem}<div class="mt-2"><Notice tone="wrong">{batch.problem}</Notice></div>{/if}
  {#if problem}<div class="mt-2"><Notice tone="wrong">{problem}</Notice></div>{/if}
  {#if batch.junk}<p class="quiet mt-2">{plural(batch.junk, 'system or compiled file')} left out.</p>{/if}
  {#if batch.unread.length}
    <h3 class="mt-4 text-seal">{plural(batch.unread.length, 'submission')} could not be read</h3>
    <ul>
      {#each batch.unread as u (u.name)}
        <li class="grid grid-cols-[16rem_1fr] gap-4 border-b border-line py-1">
          <span>{u.name}</span><span class="quiet">{u.why}</span>
        </li>
      {/each}
    </ul>
  {/if}
  {#if batch.total}
    <h3 class="mt-4">
      {plural(batch.total, 'submission')}{#if batch.unmatched}, <span class="text-seal"
          >{batch.unmatched} not on the class list</span
        >{/if}
    </h3>
    <table class="w-full">
      <thead class="quiet text-left"
        ><tr
          ><th class="font-normal">Received as</th><th class="font-normal">Student</th><th class="font-normal"
            >State</th
          ><th class="font-normal">Remarks</th></tr
        ></thead
      >
      <tbody>
        {#each shown as s (`${s.submission}-${s.attempt}`)}
          <tr class="border-b border-line">
            <td class="mono py-1">{s.received_as}</td>
            <td>
              <select
                aria-label="Student of {s.received_as}"
                class={s.student === null ? 'border-seal' : 'border-transparent bg-transparent'}
                value={s.student === null ? '' : String(s.student)}
                onchange={(e) => match(s.submission, e.currentTarget.value)}
              >
                <option value="">not on the list: {s.name}</option>
                {#each roster as r (r.id)}<option value={String(r.id)}>{r.name}</option>{/each}
              </select>
              {#if s.attempt > 1}<span class="quiet">attempt {s.attempt}</span>{/if}
            </td>
            <td class={s.state === 'failed' ? 'text-seal' : s.state === 'done' ? '' : 'quiet'}
              >{STATES[s.state] ?? s.state}{#if s.problem}: {s.problem}{/if}</td
            >
            <td
              >{#if s.state === 'done'}<a href="/desk/{s.submission}">{plural(s.remarks, 'remark')}</a
                >{/if}</td
            >
          </tr>
        {/each}
      </tbody>
    </table>
    {#if batch.total > batch.page}
      <nav class="mt-3 flex items-baseline gap-4" aria-label="Pages of {batch.file_name}">
        <button class="press" disabled={start === 0} onclick={() => (start = Math.max(0, start - batch.page))}
          >Previous</button
        >
        <span class="quiet">{start + 1} to {Math.min(batch.total, start + batch.page)} of {batch.total}</span>
        <button
          class="press"
          disabled={start + batch.page >= batch.total}
          onclick={() => (start += batch.page)}>Next</button
        >
      </nav>
    {/if}
  {/if}
</section>
