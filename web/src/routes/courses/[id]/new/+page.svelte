<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { api, take, type Spec } from '$lib/api/client';
  import SetUp from '$lib/setup/SetUp.svelte';
  import Loading from '$lib/ui/Loading.svelte';

  const course = $derived(Number(page.params.id));
  const start = createQuery(() => ({
    queryKey: ['default-assignment'],
    queryFn: () => take(api.GET('/api/default-assignment'))
  }));
</script>

<svelte:head><title>New assignment – Partitor</title></svelte:head>
<Loading query={start}>
  <div class="flex h-full flex-col">
    <h1 class="border-b border-line px-6 py-2 text-[1.15rem]">New assignment</h1>
    <div class="min-h-0 grow">
      <SetUp
        initial={{ spec: start.data?.spec as Spec, starter: {}, reference: {} }}
        draft="course-{course}"
        save={async (body) => {
          const made = await take(
            api.POST('/api/courses/{course}/assignments', { params: { path: { course } }, body })
          );
          await goto(`/assignments/${made.id}/collect`);
        }}
      />
    </div>
  </div>
</Loading>
