<!-- Who teaches and who assists in a course. -->
<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { api, take, type Schemas } from '$lib/api/client';
  import Notice from '$lib/ui/Notice.svelte';

  let { course, mayDecide }: { course: number; mayDecide: boolean } = $props();
  const client = useQueryClient();
  const path = $derived({ params: { path: { course } } });
  const members = createQuery(() => ({
    queryKey: ['members', course],
    queryFn: () => take(api.GET('/api/courses/{course}/members', path))
  }));
  let user = $state('');
  let part = $state<'owner' | 'teacher' | 'assistant'>('assistant');
  let problem = $state('');

  async function keep(work: Promise<Schemas['Member'][]>) {
    problem = '';
    try {
      client.setQueryData(['members', course], await work);
      return true;
    } catch (error) {
      problem = (error as Error).message;
      return false;
    }
  }
  async function add(event: SubmitEvent) {
    event.preventDefault();
    const body = { user, part };
    if (await keep(take(api.POST('/api/courses/{course}/members', { ...path, body })))) user = '';
  }
  function remove(member: string) {
    const where = { params: { path: { course, user: member } } };
    return keep(take(api.DELETE('/api/courses/{course}/members/{user}', where)));
  }
</script>

<ul>
  {#each members.data ?? [] as m (m.user)}
    <li class="flex justify-between border-b border-line py-1">
      <span>{m.name || m.user} <span class="quiet">{m.user}</span></span>
      <span class="quiet flex gap-4"
        >{m.part}
        {#if mayDecide && m.part !== 'owner'}<button
            class="hover:underline"
            aria-label="Remove {m.name || m.user}"
            onclick={() => remove(m.user)}>Remove</button
          >{/if}</span
      >
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
        ><option value="owner">owner: appoints others too</option></select
      ></label
    >
    <button class="press">Add</button>
  </form>
{/if}
{#if problem}<div class="mt-2"><Notice tone="wrong">{problem}</Notice></div>{/if}
