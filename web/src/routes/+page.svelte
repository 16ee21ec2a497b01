<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { api, csrfToken, sentence, take } from '$lib/api/client';
  import Dialog from '$lib/ui/Dialog.svelte';
  import Loading from '$lib/ui/Loading.svelte';
  import Notice from '$lib/ui/Notice.svelte';
  import { plural } from '$lib/words';
  import Members from './courses/Members.svelte';

  const client = useQueryClient();
  const courses = createQuery(() => ({
    queryKey: ['courses'],
    queryFn: () => take(api.GET('/api/courses'))
  }));
  let title = $state('');
  let term = $state('');
  let problem = $state('');
  let members = $state<{ id: number; title: string; part: string } | null>(null);

  async function make(event: SubmitEvent) {
    event.preventDefault();
    problem = '';
    try {
      await take(api.POST('/api/courses', { body: { title, term } }));
      title = term = '';
      await client.invalidateQueries({ queryKey: ['courses'] });
    } catch (error) {
      problem = (error as Error).message;
    }
  }

  async function readRoster(course: number, files: FileList | null) {
    if (!files?.[0]) return;
    problem = '';
    const body = new FormData();
    body.append('file', files[0]);
    const answer = await fetch(`/api/courses/${course}/roster`, {
      method: 'PUT',
      body,
      headers: { 'X-CSRFToken': csrfToken() }
    });
    if (!answer.ok) problem = await sentence(answer);
    await client.invalidateQueries();
  }
</script>

<svelte:head><title>Courses – Partitor</title></svelte:head>
<div class="mx-auto h-full max-w-5xl overflow-auto px-6 pt-6 pb-16">
  <h1 class="sr-only">Courses</h1>
  {#if problem}<div class="mb-4"><Notice tone="wrong">{problem}</Notice></div>{/if}
  <Loading query={courses}>
    {#each courses.data ?? [] as course (course.id)}
      <section class="mb-12">
        <div class="flex items-baseline gap-4 border-b border-line pb-2">
          <h2 class="text-2xl">{course.title}</h2>
          <span class="quiet">{course.term}</span>
          <span class="grow"></span>
          <button
            class="quiet underline decoration-line underline-offset-4"
            onclick={() => (members = course)}>Members</button
          >
          {#if course.part !== 'assistant'}
            <label
              class="quiet cursor-pointer underline decoration-line underline-offset-4 focus-within:outline-2 focus-within:outline-seal"
            >
              {plural(course.students, 'student')} · read a class list
              <input
                type="file"
                accept=".csv,text/csv"
                class="sr-only"
                onchange={(e) => readRoster(course.id, e.currentTarget.files)}
              />
            </label>
            <a class="press no-underline" href="/courses/{course.id}/new">New assignment</a>
          {/if}
        </div>
        <ul>
          {#each course.assignments as a (a.id)}
            <li class="grid grid-cols-[1fr_auto] items-baseline gap-x-6 border-b border-line py-4">
              <a class="font-serif text-lg" href="/assignments/{a.id}/{a.submissions ? 'class' : 'collect'}"
                >{a.title}</a
              >
              <span class="quiet">
                {plural(a.submissions, 'submission')}{#if a.returned}, {a.returned} returned{/if}
              </span>
              <span class="quiet">
                {#if !a.submissions}
                  Nothing handed in yet: <a href="/assignments/{a.id}/collect">collect the class's work</a>.
                {:else if a.unfinished}
                  <span class="text-seal">{a.unfinished} to look through</span>
                {:else}
                  <span class="text-done">All looked through</span>
                {/if}
                {#if a.unread}· {a.unread} could not be read{/if}
              </span>
              <span class="quiet flex gap-4">
                <a href="/assignments/{a.id}/setup">Set up</a>
                <a href="/assignments/{a.id}/collect">Collect</a>
                <a href="/assignments/{a.id}/return">Return</a>
              </span>
            </li>
          {:else}
            <li class="quiet py-4">
              No assignment yet. <a href="/courses/{course.id}/new">Say what is asked</a>.
            </li>
          {/each}
        </ul>
      </section>
    {:else}
      <p class="mb-8">You are in no course yet. Make one here.</p>
    {/each}
    <form onsubmit={make} class="flex items-end gap-4">
      <label class="grid gap-1">New course<input bind:value={title} required maxlength="200" /></label>
      <label class="grid gap-1">Term<input bind:value={term} maxlength="100" /></label>
      <button class="press">Make the course</button>
    </form>
  </Loading>
  <Dialog
    bind:open={() => members !== null, (open) => (members = open ? members : null)}
    title="Members of {members?.title ?? ''}"
  >
    {#if members}<Members course={members.id} mayDecide={members.part !== 'assistant'} />{/if}
  </Dialog>
</div>
