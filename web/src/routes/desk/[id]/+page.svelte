<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { api, take } from '$lib/api/client';
  import { keyboard } from '$lib/keys.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import Loading from '$lib/ui/Loading.svelte';
  import Notice from '$lib/ui/Notice.svelte';
  import Places from '$lib/ui/Places.svelte';
  import { points, STATES } from '$lib/words';
  import CallMap from './CallMap.svelte';
  import Code from './Code.svelte';
  import { addRemark, changeRemark, dropRemark, rowsOf, setMark, setReviewed } from './desk.svelte';
  import NewRemark from './NewRemark.svelte';
  import RemarkCard from './RemarkCard.svelte';
  import RubricStrip from './RubricStrip.svelte';
  import ThenNow from './ThenNow.svelte';

  const client = useQueryClient();
  const id = $derived(Number(page.params.id));
  const attempt = $derived(page.url.searchParams.get('attempt') ?? '');
  const desk = createQuery(() => ({
    queryKey: ['desk', id, attempt],
    queryFn: () =>
      take(
        api.GET('/api/submissions/{submission}', {
          params: { path: { submission: id }, query: (attempt ? { attempt } : {}) as never }
        })
      ),
    refetchInterval: (query) => (['queued', 'running'].includes(query.state.data?.state ?? '') ? 700 : false)
  }));
  const rows = $derived(desk.data ? rowsOf(desk.data) : []);
  const chosenId = $derived(Number(page.url.searchParams.get('remark') ?? 0));
  const chosen = $derived(rows.find((r) => r.remark.id === chosenId) ?? null);
  const suggestions = $derived(new Map((desk.data?.report?.suggestions ?? []).map((s) => [s.id, s])));
  const suggestion = $derived(suggestions.get(chosen?.finding?.suggestion ?? '') ?? null);
  const texts = $derived(new Map((desk.data?.files ?? []).map((f) => [f.path, f.text])));
  const path = $derived(
    page.url.searchParams.get('file') ?? chosen?.finding?.places[0]?.file ?? desk.data?.files[0]?.path ?? ''
  );
  const thenNow = $derived(page.url.searchParams.get('show') === 'then-now' && suggestion !== null);
  let mapping = $state(false);
  let problem = $state('');
  let undo = $state<{ text: string; run: () => Promise<unknown> } | null>(null);

  function set(changes: Record<string, string | null>) {
    const url = new URL(page.url);
    for (const [name, value] of Object.entries(changes)) {
      if (value) url.searchParams.set(name, value);
      else url.searchParams.delete(name);
    }
    goto(url, { replaceState: true, keepFocus: true, noScroll: true });
  }
  function choose(remark: number) {
    const row = rows.find((r) => r.remark.id === remark);
    const file = row?.finding?.places[0]?.file;
    set({
      remark: remark === chosenId ? null : String(remark),
      file: file && file !== desk.data?.files[0]?.path ? file : null
    });
  }
  function move(by: number) {
    const index = rows.findIndex((r) => r.remark.id === chosenId);
    const next = rows[Math.max(0, Math.min(rows.length - 1, index + by))];
    if (next && next.remark.id !== chosenId) choose(next.remark.id);
  }
  /** Then / now of the chosen remark; where it has none, of the first remark that has one. */
  function showThenNow() {
    if (suggestion) return set({ show: thenNow ? null : 'then-now' });
    const first = rows.find((r) => suggestions.has(r.finding?.suggestion ?? ''));
    if (first) set({ remark: String(first.remark.id), show: 'then-now' });
  }
  function toStudent(other: number | null | undefined) {
    if (other) goto(`/desk/${other}${thenNow ? '?show=then-now' : ''}`);
  }
  async function keep(work: Promise<unknown>) {
    problem = '';
    try {
      await work;
    } catch (error) {
      problem = (error as Error).message;
    }
    await client.invalidateQueries({ queryKey: ['desk', id] });
    await client.invalidateQueries({ queryKey: ['class', desk.data?.assignment] });
  }
  function change(remark: NonNullable<typeof chosen>['remark'], what: Parameters<typeof changeRemark>[1]) {
    const before = { state: remark.state, hint: remark.hint, words: remark.words };
    undo = { text: 'Take that back', run: () => changeRemark(remark, before) };
    return keep(changeRemark(remark, what));
  }
  async function reviewed() {
    if (!desk.data) return;
    const done = !desk.data.reviewed;
    const next = desk.data.next;
    await keep(setReviewed(id, done));
    if (done) toStudent(next);
  }

  $effect(() =>
    keyboard.add('Desk', [
      { key: 'j', does: 'Next remark', run: () => move(1) },
      { key: 'k', does: 'Remark before', run: () => move(-1) },
      {
        key: 'a',
        does: 'Accept the remark',
        run: () =>
          chosen && change(chosen.remark, { state: chosen.remark.state === 'accepted' ? 'open' : 'accepted' })
      },
      {
        key: 'x',
        does: 'Set the remark aside',
        run: () =>
          chosen?.finding &&
          change(chosen.remark, { state: chosen.remark.state === 'aside' ? 'open' : 'aside' })
      },
      {
        key: 'e',
        does: 'Say it in your words',
        run: () => document.querySelector<HTMLElement>('[data-words]')?.focus()
      },
      { key: 't', does: 'Then / now', run: showThenNow },
      { key: 'm', does: 'Call map', run: () => (mapping = true) },
      { key: 'd', does: 'Looked through; on to the next student', run: reviewed },
      { key: 'n', does: 'Next student', run: () => toStudent(desk.data?.next) },
      { key: 'p', does: 'Student before', run: () => toStudent(desk.data?.previous) },
      {
        key: 'u',
        does: 'Take the last decision back',
        run: () => undo && keep(undo.run()).then(() => (undo = null))
      }
    ])
  );
</script>

<svelte:head><title>{desk.data?.name ?? 'Desk'} – Partitor</title></svelte:head>
<Loading query={desk}>
  {#if desk.data}
    {@const d = desk.data}
    <div class="flex h-full flex-col">
      <Places assignment={d.assignment} title={d.assignment_title} />
      <div class="flex items-baseline gap-4 border-b border-line px-6 py-1.5">
        <h2 class="text-lg">{d.name}</h2>
        {#if d.attempts.length > 1}
          <label class="flex items-baseline gap-2">
            <span class="quiet">attempt</span>
            <select
              value={String(d.attempt)}
              onchange={(e) => set({ attempt: e.currentTarget.value, remark: null })}
            >
              {#each d.attempts as a (a.number)}<option value={String(a.number)}
                  >{a.number} ({points(a.total)} of {points(a.of)})</option
                >{/each}
            </select>
          </label>
        {/if}
        {#each d.files.length > 1 ? d.files : [] as f (f.path)}
          <button
            class={['mono', f.path === path ? 'font-medium underline' : 'text-soft']}
            onclick={() => set({ file: f.path })}>{f.path}</button
          >
        {/each}
        {#if d.report}
          <span class="quiet"
            >{d.report.worked_answer.lines_before} lines{#if d.report.worked_answer.steps.length}; worked
              answer
              {d.report.worked_answer.steps.map((s) => s.lines).join(' → ')}{/if}</span
          >
        {/if}
        <span class="grow"></span>
        <button class="quiet hover:underline" onclick={() => (mapping = true)}
          >Call map <span class="key">m</span></button
        >
        <button
          class={['press', d.reviewed ? 'text-done' : 'press-seal']}
          aria-pressed={d.reviewed}
          onclick={reviewed}>{d.reviewed ? 'Looked through' : 'Done, next'} <span class="key">d</span></button
        >
        <span class="quiet whitespace-nowrap">
          <button
            class="hover:underline disabled:opacity-50"
            disabled={!d.previous}
            onclick={() => toStudent(d.previous)}>before <span class="key">p</span></button
          >
          {d.position} of {d.count}
          <button
            class="hover:underline disabled:opacity-50"
            disabled={!d.next}
            onclick={() => toStudent(d.next)}><span class="key">n</span> next</button
          >
        </span>
      </div>
      <div class="grid min-h-0 grow grid-cols-[minmax(0,1fr)_24rem]">
        <div
          class={[
            'grid min-h-0 min-w-0',
            thenNow ? 'grid-rows-[minmax(0,1fr)_minmax(0,1fr)]' : 'grid-rows-[minmax(0,1fr)]'
          ]}
        >
          {#key `${d.id}-${d.attempt}-${path}`}
            <Code
              {path}
              text={texts.get(path) ?? ''}
              language={desk.data?.files.find((f) => f.path === path)?.language ?? ''}
              report={d.report}
              selected={chosen?.finding ?? null}
              choose={(finding) => {
                const row = rows.find((r) => r.finding?.id === finding);
                if (row) choose(row.remark.id);
              }}
            />
          {/key}
          {#if thenNow && suggestion && chosen?.finding}
            <ThenNow
              finding={chosen.finding}
              {suggestion}
              {texts}
              group={chosen.group}
              close={() => set({ show: null })}
            />
          {/if}
        </div>
        <aside class="min-h-0 overflow-auto border-l border-line" aria-label="Remarks">
          {#if d.state !== 'done'}
            <div class="p-4">
              <Notice tone={d.state === 'failed' ? 'wrong' : 'plain'}
                >{d.problem || `It is ${STATES[d.state] ?? d.state}.`}</Notice
              >
            </div>
          {:else if d.problem}
            <div class="p-4"><Notice>{d.problem}</Notice></div>
          {/if}
          {#each d.report?.files ?? [] as f (f.path)}
            {#each f.problems.slice(0, 3) as p, k (k)}
              <p class="border-b border-line px-4 py-2">
                <span class="text-seal">Line {p.line} could not be read:</span>
                {p.message}.
              </p>
            {/each}
          {/each}
          {#if problem}<div class="p-4"><Notice tone="wrong">{problem}</Notice></div>{/if}
          {#each rows as row (row.remark.id)}
            <RemarkCard
              remark={row.remark}
              finding={row.finding}
              group={row.group}
              title={d.rule_titles[row.finding?.rule ?? ''] ?? ''}
              suggestion={suggestions.get(row.finding?.suggestion ?? '') ?? null}
              open={row.remark.id === chosenId}
              choose={() => choose(row.remark.id)}
              change={(what) => change(row.remark, what)}
              drop={() => keep(dropRemark(row.remark.id))}
              showThenNow={() => set({ show: thenNow ? null : 'then-now' })}
            />
          {:else}
            {#if d.state === 'done'}<p class="px-4 py-4 text-done">
                Nothing to remark: this program is well divided.
              </p>{/if}
          {/each}
          {#if undo}<p class="quiet px-4 py-2">
              <button class="underline" onclick={() => undo && keep(undo.run()).then(() => (undo = null))}
                >{undo.text}</button
              > <span class="key">u</span>
            </p>{/if}
          {#key d.id}<NewRemark
              submission={d.id}
              add={(words, line) => keep(addRemark(id, words, path, line))}
            />{/key}
        </aside>
      </div>
      <RubricStrip
        marks={d.marks}
        spec={d.spec}
        set={async (mark, level, reason) => {
          await setMark(id, mark, level, reason);
          await keep(Promise.resolve());
        }}
      />
    </div>
    {#if d.report}
      <Dialog bind:open={mapping} title="Call map" wide><CallMap report={d.report} /></Dialog>
    {/if}
  {/if}
</Loading>
