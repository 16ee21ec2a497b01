<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { page } from '$app/state';
  import { api, take, type Schemas } from '$lib/api/client';
  import Notice from '$lib/ui/Notice.svelte';
  import BatchView from './BatchView.svelte';
  import DropPlace from './DropPlace.svelte';

  const client = useQueryClient();
  const id = $derived(Number(page.params.id));
  const path = $derived({ params: { path: { assignment: id } } });
  const assignment = createQuery(() => ({
    queryKey: ['assignment', id],
    queryFn: () => take(api.GET('/api/assignments/{assignment}', path))
  }));
  const course = $derived(assignment.data?.course ?? 0);
  const roster = createQuery(() => ({
    queryKey: ['roster', course],
    enabled: course > 0,
    queryFn: () => take(api.GET('/api/courses/{course}/roster', { params: { path: { course } } }))
  }));
  const moving = (batches?: Schemas['Batch'][]) =>
    batches?.some((b) => b.state === 'received' || b.state === 'checking') ?? false;
  const longest = (batches?: Schemas['Batch'][]) => Math.max(0, ...(batches ?? []).map((b) => b.total));
  const batches = createQuery(() => ({
    queryKey: ['batches', id],
    queryFn: () => take(api.GET('/api/assignments/{assignment}/batches', path)),
    // A long batch is asked after less often: what is new in it is a smaller part of it.
    refetchInterval: (query) =>
      moving(query.state.data) ? (longest(query.state.data) > 500 ? 2000 : 400) : false
  }));
  let problem = $state('');

  async function refresh() {
    await client.invalidateQueries({ queryKey: ['batches', id] });
    await client.invalidateQueries({ queryKey: ['class', id] });
  }
</script>

<svelte:head><title>Collect – Partitor</title></svelte:head>
<div class="h-full overflow-auto px-6 pt-5 pb-16">
  <DropPlace {id} done={refresh} failed={(sentence) => (problem = sentence)} />
  {#if problem}<div class="mt-3"><Notice tone="wrong">{problem}</Notice></div>{/if}
  {#each batches.data ?? [] as batch (batch.id)}
    <BatchView {batch} roster={roster.data ?? []} assignment={id} changed={refresh} />
  {:else}
    <p class="quiet mt-6">Nothing is handed in yet. One archive with an entry for each student is enough.</p>
  {/each}
</div>
