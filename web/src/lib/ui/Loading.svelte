<script lang="ts">
  import type { Snippet } from 'svelte';
  import Notice from './Notice.svelte';

  interface Query {
    isPending: boolean;
    error: Error | null;
  }
  let { query, children }: { query: Query; children: Snippet } = $props();
</script>

{#if query.error}
  <div class="p-6"><Notice tone="wrong">{query.error.message}</Notice></div>
{:else if query.isPending}
  <p class="quiet p-6" role="status">Fetching…</p>
{:else}
  {@render children()}
{/if}
