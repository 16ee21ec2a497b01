<script lang="ts">
  import type { Snippet } from 'svelte';

  let { tone = 'plain', children }: { tone?: 'plain' | 'wrong'; children: Snippet } = $props();
</script>

<p
  role={tone === 'wrong' ? 'alert' : 'status'}
  class={['border-l-4 px-3 py-1', tone === 'wrong' ? 'border-seal text-seal' : 'border-line text-soft']}
>
  {@render children()}
</p>
