<script lang="ts">
  import '../app.css';
  import { QueryClient, QueryClientProvider } from '@tanstack/svelte-query';
  import { onMount, type Snippet } from 'svelte';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { ApiError, api, take } from '$lib/api/client';
  import { keyboard } from '$lib/keys.svelte';
  import { theme } from '$lib/theme.svelte';
  import KeyHelp from '$lib/ui/KeyHelp.svelte';
  import Mark from '$lib/ui/Mark.svelte';

  let { children }: { children: Snippet } = $props();
  let name = $state('');

  const client = new QueryClient({
    defaultOptions: {
      queries: {
        retry: (count, problem) => !(problem instanceof ApiError) && count < 2,
        refetchOnWindowFocus: false
      }
    }
  });
  client.getQueryCache().subscribe((event) => {
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
    <main id="main" class="min-h-0 grow">{@render children()}</main>
  </div>
  <KeyHelp />
</QueryClientProvider>
