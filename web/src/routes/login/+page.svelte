<script lang="ts">
  import { useQueryClient } from '@tanstack/svelte-query';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { api, take } from '$lib/api/client';
  import Notice from '$lib/ui/Notice.svelte';

  const client = useQueryClient();
  let user = $state('');
  let password = $state('');
  let problem = $state('');
  let busy = $state(false);

  async function logIn(event: SubmitEvent) {
    event.preventDefault();
    busy = true;
    problem = '';
    try {
      await take(api.POST('/api/session', { body: { user, password } }));
      client.clear();
      const then = page.url.searchParams.get('then') ?? '/';
      await goto(then.startsWith('/') && !then.startsWith('//') ? then : '/');
    } catch (error) {
      problem = (error as Error).message;
      password = '';
    }
    busy = false;
  }
</script>

<svelte:head><title>Log in – Partitor</title></svelte:head>
<div class="mx-auto max-w-sm pt-24">
  <h1 class="mb-1">Log in</h1>
  <p class="quiet mb-6">Read a class's programs, mark what repeats, give back the way out.</p>
  <form onsubmit={logIn} class="grid gap-4">
    <label class="grid gap-1">Name<input bind:value={user} autocomplete="username" required /></label>
    <label class="grid gap-1">
      Password<input type="password" bind:value={password} autocomplete="current-password" required />
    </label>
    {#if problem}<Notice tone="wrong">{problem}</Notice>{/if}
    <div><button class="press press-seal" disabled={busy}>Log in</button></div>
  </form>
</div>
