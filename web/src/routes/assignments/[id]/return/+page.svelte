<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { api, take, type Schemas } from '$lib/api/client';
  import { written } from '$lib/conflict.svelte';
  import { keyboard } from '$lib/keys.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import Loading from '$lib/ui/Loading.svelte';
  import Notice from '$lib/ui/Notice.svelte';
  import { HINTS, plural } from '$lib/words';

  type Hint = 'where' | 'shape' | 'answer';
  const client = useQueryClient();
  const id = $derived(Number(page.params.id));
  const path = $derived({ params: { path: { assignment: id } } });
  const view = createQuery(() => ({
    queryKey: ['return', id],
    queryFn: () => take(api.GET('/api/assignments/{assignment}/return', path))
  }));
  const students = $derived(view.data?.students ?? []);
  const chosenId = $derived(Number(page.url.searchParams.get('student') ?? students[0]?.submission ?? 0));
  const chosen = $derived(students.find((s) => s.submission === chosenId));
  const ready = $derived(students.filter((s) => s.ready && !s.held));
  let turn = $state(0);
  let asking = $state(false);
  let problem = $state('');

  function choose(student: number) {
    const url = new URL(page.url);
    url.searchParams.set('student', String(student));
    goto(url, { replaceState: true, keepFocus: true, noScroll: true });
  }
  async function keep(work: Promise<Schemas['Return'] | null>) {
    problem = '';
    try {
      const now = await work;
      if (now) client.setQueryData(['return', id], now);
      else await client.invalidateQueries({ queryKey: ['return', id] });
    } catch (error) {
      problem = (error as Error).message;
    }
    turn += 1;
  }
  function set(submission: number, body: Schemas['PatchedHandbackInputRequest']) {
    const path = { params: { path: { submission } } };
    const version = students.find((s) => s.submission === submission)?.version;
    return keep(
      written(
        (version) =>
          take(api.PATCH('/api/submissions/{submission}/return', { ...path, body: { ...body, version } })),
        version,
        body
      )
    );
  }
  function move(by: number) {
    const next = students[students.findIndex((s) => s.submission === chosenId) + by];
    if (next) choose(next.submission);
  }
  $effect(() =>
    keyboard.add('Return', [
      { key: 'n', does: 'Next student', run: () => move(1) },
      { key: 'p', does: 'Student before', run: () => move(-1) },
      {
        key: 'h',
        does: 'Hold this one back, or not',
        run: () => chosen && set(chosen.submission, { held: !chosen.held })
      }
    ])
  );
</script>

<svelte:head><title>Return – Partitor</title></svelte:head>
<Loading query={view}>
  <div class="grid h-full grid-cols-[minmax(0,38rem)_minmax(0,1fr)]">
    <div class="flex min-h-0 flex-col border-r border-line">
      <div class="flex flex-wrap items-center gap-x-3 gap-y-2 px-6 py-3">
        <label class="flex items-center gap-2">
          Hint level for all
          <select
            value={view.data?.hint}
            disabled={!view.data?.may_decide}
            onchange={(e) =>
              keep(
                take(
                  api.PUT('/api/assignments/{assignment}/return', {
                    ...path,
                    body: { hint: e.currentTarget.value as Hint }
                  })
                )
              )}
          >
            {#each Object.entries(HINTS) as [value, label] (value)}<option {value}>{label}</option>{/each}
          </select>
        </label>
        {#if view.data?.may_decide}
          <button class="press press-seal" disabled={!ready.length} onclick={() => (asking = true)}
            >Publish…</button
          >
          <a class="press no-underline" href="/api/assignments/{id}/pack" download>Pack</a>
        {/if}
        <a class="press no-underline" href="/api/assignments/{id}/gradebook" download>Gradebook</a>
      </div>
      {#if problem}<div class="px-6 pb-2"><Notice tone="wrong">{problem}</Notice></div>{/if}
      <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
      <div class="min-h-0 grow overflow-auto px-6 pb-10" tabindex="0" role="region" aria-label="Students">
        <table class="w-full">
          <thead class="quiet text-left"
            ><tr>
              <th class="font-normal">Student</th><th class="font-normal">Score</th><th class="font-normal"
                >Hint level</th
              >
              <th class="font-normal">Hold</th><th class="font-normal">Page</th></tr
            ></thead
          >
          <tbody>
            {#each students as s (s.submission)}
              <tr class={['border-b border-line', s.submission === chosenId && 'bg-lit']}>
                <td class="py-1"
                  ><button
                    class="text-left hover:underline"
                    aria-pressed={s.submission === chosenId}
                    onclick={() => choose(s.submission)}>{s.name}</button
                  >
                  {#if !s.reviewed}<span class="quiet block leading-none">not looked through</span>{/if}</td
                >
                <td class="whitespace-nowrap">{s.total || '–'}</td>
                <td
                  ><select
                    aria-label="Hint level for {s.name}"
                    value={s.hint}
                    onchange={(e) => set(s.submission, { hint: e.currentTarget.value as Hint | '' })}
                  >
                    <option value="">as for all</option>{#each Object.keys(HINTS) as value (value)}<option
                        {value}>{value}</option
                      >{/each}
                  </select></td
                >
                <td
                  ><input
                    type="checkbox"
                    aria-label="Hold back {s.name}"
                    checked={s.held}
                    onchange={(e) => set(s.submission, { held: e.currentTarget.checked })}
                  /></td
                >
                <td>
                  {#if s.published}<a href={s.link} target="_blank" rel="noreferrer">open</a
                    >{#if s.stale}<span class="quiet block leading-none">changed since</span>{/if}
                  {:else if s.held}<span class="quiet">held back</span>{:else if !s.ready}<span class="quiet"
                      >not checked</span
                    >{:else}<span class="text-done">ready</span>{/if}
                </td>
              </tr>
            {:else}
              <tr
                ><td colspan="5" class="py-4"
                  >Nothing to return yet. <a href="/assignments/{id}/collect">Collect the class's work</a
                  >.</td
                ></tr
              >
            {/each}
          </tbody>
        </table>
      </div>
      {#if chosen}
        <div class="border-t border-line px-6 py-3">
          <label class="grid gap-1">
            <span class="quiet">A word to {chosen.name}, at the top of the page</span>
            {#key chosen.submission}
              <textarea
                rows="2"
                value={chosen.words}
                onchange={(e) => set(chosen.submission, { words: e.currentTarget.value })}></textarea>
            {/key}
          </label>
          {#if chosen.published && view.data?.may_decide}
            <button class="press mt-2" onclick={() => set(chosen.submission, { withdraw: true })}
              >Close the published page</button
            >
          {/if}
        </div>
      {/if}
    </div>
    {#if chosen?.ready}
      {#key `${chosen.submission}-${turn}`}
        <iframe title="What {chosen.name} will get" src="/preview/{chosen.submission}" class="h-full w-full"
        ></iframe>
      {/key}
    {:else}
      <p class="quiet p-6">What the student will get shows here.</p>
    {/if}
  </div>
  <Dialog bind:open={asking} title="Publish the feedback">
    <p>
      {plural(ready.length, 'page')} will open under private links, each as shown. {students.filter(
        (s) => s.held
      ).length} held back.
    </p>
    {#if ready.some((s) => !s.reviewed)}
      <p class="mt-2 text-seal">
        {ready.filter((s) => !s.reviewed).length} of them you have not looked through.
      </p>
    {/if}
    <p class="quiet mt-2">
      The links are in the pack, in links.csv. Publishing again replaces the pages; a page can be closed.
    </p>
    <div class="mt-4 flex gap-2">
      <button
        class="press press-seal"
        onclick={async () => {
          asking = false;
          await keep(take(api.POST('/api/assignments/{assignment}/return', path)));
        }}>Publish {plural(ready.length, 'page')}</button
      >
      <button class="press" onclick={() => (asking = false)}>Not yet</button>
    </div>
  </Dialog>
</Loading>
