<script lang="ts">
  import '../app.css';
  import { QueryClient, QueryClientProvider } from '@tanstack/svelte-query';
  import { onMount, type Snippet } from 'svelte';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { ApiError, api, take } from '$lib/api/client';
  import { keyboard } from '$lib/keys.svelte';
  import { theme } from '$lib/theme.svelte';
  import ConflictDialog from '$lib/ui/ConflictDialog.svelte';
  import KeyHelp from '$lib/ui/KeyHelp.svelte';
  import Mark from '$lib/ui/Mark.svelte';

  let { children }: { children: Snippet } = $props();
  let name = $state('');

  const client = new QueryClient({
    defaultOptions: {
      queries: {
        // An outage of the database is waited for; every other refusal is final, and a lost connection is tried twice.
        retry: (count, problem) =>
          isOutage(problem) ? count < 60 : !(problem instanceof ApiError) && count < 2,
        retryDelay: (count, problem) => (isOutage(problem) ? 2000 : 1000 * 2 ** count),
        refetchOnWindowFocus: false
      }
    }
  });
  let interrupted = $state('');
  function isOutage(problem: unknown): problem is ApiError {
    return problem instanceof ApiError && problem.status === 503;
  }
  client.getQueryCache().subscribe((event) => {
    if (event.type === 'updated' && event.action.type === 'failed') {
      interrupted = isOutage(event.action.error) ? event.action.error.message : '';
    } else if (event.type === 'updated' && event.action.type === 'success') {
      interrupted = '';
    }
    // Only a fresh failure: one from before the login must not lead back to it.
    if (event.type !== 'updated' || event.action.type !== 'error') return;
    const problem = event.action.error;
    if (problem instanceof ApiError && problem.status === 401) logIn();
  });

  function logIn() {
    if (page.url.pathname !== '/login') {
      goto(`/login?then=${encodeURIComponent(page.url.pathname + page.url.search)}`);
    }
  }

  onMount(async () => {
    theme.start();
    const who = await take(api.GET('/api/session'));
    name = who.name;
    if (!who.user) logIn();
  });
  $effect(() => {
    if (page.url.pathname !== '/login' && !name) {
      take(api.GET('/api/session')).then((who) => (name = who.name));
    }
  });

  async function logOut() {
    await api.DELETE('/api/session');
    name = '';
    client.clear();
    await goto('/login');
  }
</script>

<svelte:window onkeydown={(event) => keyboard.handle(event)} />
<QueryClientProvider {client}>
  <div class="flex h-full flex-col">
    <a href="#main" class="press sr-only bg-raised focus:not-sr-only focus:absolute focus:z-40"
      >To the content</a
    >
    <header class="flex items-center gap-3 px-6 pt-3 pb-1">
      <a href="/" class="flex items-center gap-2 no-underline" aria-label="Partitor: courses">
        <Mark /><span class="font-serif text-[1.05rem] font-semibold">Partitor</span>
      </a>
      <span class="grow"></span>
      <button class="quiet hover:underline" onclick={() => (keyboard.helping = true)}>
        Keys <span class="key">?</span>
      </button>
      <button class="quiet hover:underline" onclick={() => theme.turn()}>
        {theme.dark ? 'Daylight' : 'Lamplight'}
      </button>
      {#if name}
        <span class="quiet">{name}</span>
        <button class="quiet hover:underline" onclick={logOut}>Log out</button>
      {/if}
    </header>
    {#if interrupted}
      <p role="status" class="border-y border-line bg-raised px-6 py-2">{interrupted}</p>
    {/if}
    <main id="main" class="min-h-0 grow">{@render children()}</main>
  </div>
  <KeyHelp />
  <ConflictDialog />
</QueryClientProvider>
