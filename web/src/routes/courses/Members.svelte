<!-- Who teaches and who assists in a course. -->
<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { api, take } from '$lib/api/client';
  import Notice from '$lib/ui/Notice.svelte';

  let { course, mayDecide }: { course: number; mayDecide: boolean } = $props();
  const client = useQueryClient();
  const path = $derived({ params: { path: { course } } });
  const members = createQuery(() => ({
    queryKey: ['members', course],
    queryFn: () => take(api.GET('/api/courses/{course}/members', path))
  }));
  let user = $state('');
  let part = $state<'teacher' | 'assistant'>('assistant');
  let problem = $state('');

  async function add(event: SubmitEvent) {
    event.preventDefault();
    problem = '';
    try {
      client.setQueryData(
        ['members', course],
        await take(api.POST('/api/courses/{course}/members', { ...path, body: { user, part } }))
      );
      user = '';
    } catch (error) {
      problem = (error as Error).message;
    }
  }
</script>

<ul>
  {#each members.data ?? [] as m (m.user)}
    <li class="flex justify-between border-b border-line py-1">
      <span>{m.name || m.user} <span class="quiet">{m.user}</span></span><span class="quiet">{m.part}</span>
    </li>
  {/each}
</ul>
{#if mayDecide}
  <form onsubmit={add} class="mt-4 flex flex-wrap items-end gap-3">
    <label class="grid gap-1">Logs in as<input class="w-40" required bind:value={user} /></label>
    <label class="grid gap-1"
      >Part<select bind:value={part}
        ><option value="assistant">assistant: reviews</option><option value="teacher"
          >teacher: decides too</option
        ></select
      ></label
    >
    <button class="press">Add</button>
  </form>
{/if}
{#if problem}<div class="mt-2"><Notice tone="wrong">{problem}</Notice></div>{/if}
