<script lang="ts">
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
  const unmatched = $derived(batch.submissions.filter((s) => s.student === null).length);
  const failed = $derived(batch.submissions.filter((s) => s.state === 'failed').length);
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
        Cancelled; {batch.submissions.filter((s) => s.state === 'done').length} of {batch.total} were checked
      {:else if batch.state === 'done'}
        <span class={batch.total && !failed ? 'text-done' : 'text-seal'}>{outcome(batch.total, failed)}</span>
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
  {#if batch.submissions.length}
    <h3 class="mt-4">
      {plural(batch.submissions.length, 'submission')}{#if unmatched}, <span class="text-seal"
          >{unmatched} not on the class list</span
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
        {#each batch.submissions as s (`${s.submission}-${s.attempt}`)}
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
  {/if}
</section>
