<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { page } from '$app/state';
  import { api, take } from '$lib/api/client';
  import { written } from '$lib/conflict.svelte';
  import SetUp from '$lib/setup/SetUp.svelte';

  const client = useQueryClient();
  const id = $derived(Number(page.params.id));
  // The form is made anew with each version; what it said of the last keeping stays.
  let said = $state('');
  const assignment = createQuery(() => ({
    queryKey: ['assignment', id],
    queryFn: () => take(api.GET('/api/assignments/{assignment}', { params: { path: { assignment: id } } }))
  }));
</script>

<svelte:head><title>Set up – Partitor</title></svelte:head>
{#if assignment.data}
  {#key `${id}-${assignment.data.version}`}
    <SetUp
      initial={{
        spec: assignment.data.spec,
        starter: assignment.data.starter,
        reference: assignment.data.reference
      }}
      mayDecide={assignment.data.may_decide}
      bind:said
      draft="assignment-{id}-{assignment.data.version}"
      file="/api/assignments/{id}/file"
      save={async (body) => {
        const path = { params: { path: { assignment: id } } };
        const kept = await written(
          (version) =>
            take(api.PUT('/api/assignments/{assignment}', { ...path, body: { ...body, version } })),
          assignment.data?.version,
          { ...body }
        );
        if (kept) client.setQueryData(['assignment', id], kept);
        else await client.invalidateQueries({ queryKey: ['assignment', id] });
      }}
    />
  {/key}
{/if}
