<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import type { Snippet } from 'svelte';
  import { page } from '$app/state';
  import { api, take } from '$lib/api/client';
  import Places from '$lib/ui/Places.svelte';
  import Loading from '$lib/ui/Loading.svelte';

  let { children }: { children: Snippet } = $props();
  const id = $derived(Number(page.params.id));
  const assignment = createQuery(() => ({
    queryKey: ['assignment', id],
    queryFn: () => take(api.GET('/api/assignments/{assignment}', { params: { path: { assignment: id } } }))
  }));
</script>

<Loading query={assignment}>
  <div class="flex h-full flex-col">
    <Places assignment={id} title={assignment.data?.title ?? ''} />
    <div class="min-h-0 grow">{@render children()}</div>
  </div>
</Loading>
