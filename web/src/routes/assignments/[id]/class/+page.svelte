<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { api, take, type ClassMember, type Spec } from '$lib/api/client';
  import CheckAgain from '$lib/ui/CheckAgain.svelte';
  import Loading from '$lib/ui/Loading.svelte';
  import { formatMeasure, plural, points } from '$lib/words';
  import Patterns from './Patterns.svelte';
  import Silhouette from './Silhouette.svelte';
  import Spread from './Spread.svelte';

  const client = useQueryClient();
  const id = $derived(Number(page.params.id));
  const view = createQuery(() => ({
    queryKey: ['class', id],
    queryFn: () =>
      take(api.GET('/api/assignments/{assignment}/class', { params: { path: { assignment: id } } })),
    refetchInterval: (query) =>
      query.state.data?.members.some((m) => m.state === 'queued' || m.state === 'running') ? 1000 : false
  }));
  const measures = createQuery(() => ({
    queryKey: ['measures'],
    queryFn: () => take(api.GET('/api/measures'))
  }));

  const sort = $derived(page.url.searchParams.get('sort') ?? 'total');
  const rule = $derived(page.url.searchParams.get('rule') ?? '');
  const pattern = $derived(page.url.searchParams.get('pattern') ?? '');
  const chosen = $derived((measures.data ?? []).find((m) => m.id === sort));

  function set(name: string, value: string) {
    const url = new URL(page.url);
    if (value) url.searchParams.set(name, value);
    else url.searchParams.delete(name);
    goto(url, { replaceState: true, keepFocus: true, noScroll: true });
  }
  function value(m: ClassMember): number {
    return sort === 'total' ? (m.of ? m.total / m.of : 0) : (m.measures[sort] ?? 0);
  }
  const shown = $derived.by(() => {
    let members = view.data?.members ?? [];
    if (rule) members = members.filter((m) => m.rules[rule]);
    const shared = pattern ? view.data?.patterns[Number(pattern)] : undefined;
    if (shared) members = members.filter((m) => shared.submissions.includes(m.id));
    if (sort === 'name') return members;
    const direction = sort === 'total' || chosen?.better === 'high' ? 1 : -1;
    return [...members].sort((a, b) => direction * (value(a) - value(b)) || a.name.localeCompare(b.name));
  });
  const rules = $derived(
    (view.data?.rules ?? [])
      .map((r) => ({ ...r, count: (view.data?.members ?? []).filter((m) => m.rules[r.id]).length }))
      .filter((r) => r.count)
  );
  async function useCriteria(criteria: Spec['criteria']) {
    if (!view.data) return;
    await take(
      api.PUT('/api/assignments/{assignment}', {
        params: { path: { assignment: id } },
        body: { spec: { ...view.data.spec, criteria } }
      })
    );
    await client.invalidateQueries({ queryKey: ['again', id] });
    await client.invalidateQueries({ queryKey: ['assignment', id] });
    await client.invalidateQueries({ queryKey: ['class', id] });
  }
  const checked = $derived((view.data?.members ?? []).filter((m) => m.state === 'done'));
</script>

<svelte:head><title>Class – Partitor</title></svelte:head>
<Loading query={view}>
  <div class="grid h-full grid-cols-[minmax(0,1fr)_19rem]">
    <div class="overflow-auto px-6 pt-3 pb-16">
      <CheckAgain assignment={id} />
      <div class="mb-2 flex flex-wrap items-center gap-x-5 gap-y-2">
        <label class="flex items-center gap-2">
          Order by
          <select value={sort} onchange={(e) => set('sort', e.currentTarget.value)}>
            <option value="total">Score</option><option value="name">Name</option>
            {#each measures.data ?? [] as m (m.id)}<option value={m.id}>{m.title}</option>{/each}
          </select>
        </label>
        <label class="flex items-center gap-2">
          Show
          <select value={rule} onchange={(e) => set('rule', e.currentTarget.value)}>
            <option value="">all programs</option>
            {#each rules as r (r.id)}<option value={r.id}>{r.title} ({r.count})</option>{/each}
          </select>
        </label>
        <span class="quiet"
          >{shown.length} of {view.data?.members.length ?? 0}{#if pattern}
            · <button class="underline" onclick={() => set('pattern', '')}>show all again</button>{/if}</span
        >
      </div>
      {#if view.data?.members.length}
        <ol class="grid grid-cols-[repeat(auto-fill,minmax(5.9rem,1fr))] items-end gap-x-5 gap-y-4">
          {#each shown as m (m.id)}
            <li>
              <a href="/desk/{m.id}" class="group block no-underline">
                <Silhouette member={m} />
                <span
                  class="mt-1 block truncate text-[13px] leading-tight group-hover:underline"
                  title={m.name}>{m.name}</span
                >
                <span class="quiet block text-[12px]">
                  {#if m.state === 'done'}
                    {points(m.total)}/{points(m.of)}{#if chosen}{' · '}{formatMeasure(
                        value(m),
                        chosen.unit
                      )}{/if}{#if m.reviewed}{' · '}<span class="text-done">seen</span>{/if}
                  {:else}
                    {m.state === 'failed' ? 'failed' : 'waiting'}
                  {/if}
                </span>
              </a>
            </li>
          {/each}
        </ol>
        {#if checked.length > 1}
          <Spread
            members={checked}
            {sort}
            measure={chosen}
            criteria={view.data.spec.criteria}
            use={useCriteria}
          />
        {/if}
      {:else}
        <p class="py-8">
          No program is here yet. <a href="/assignments/{id}/collect">Collect the class's work</a>.
        </p>
      {/if}
    </div>
    <Patterns data={view.data} chosen={pattern} choose={(value) => set('pattern', value)}>
      <p class="quiet">
        {plural(checked.length, 'program')} checked, {(view.data?.members ?? []).filter((m) => m.reviewed)
          .length} looked through.
      </p>
    </Patterns>
  </div>
</Loading>
