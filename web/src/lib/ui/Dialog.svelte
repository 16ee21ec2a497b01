<script lang="ts">
  import { Dialog } from 'bits-ui';
  import type { Snippet } from 'svelte';

  let {
    open = $bindable(false),
    title,
    wide = false,
    children
  }: {
    open?: boolean;
    title: string;
    wide?: boolean;
    children: Snippet;
  } = $props();
</script>

<Dialog.Root bind:open>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-20 bg-ink/30" />
    <Dialog.Content
      class={[
        'fixed top-1/2 left-1/2 z-30 max-h-[85vh] w-full -translate-x-1/2 -translate-y-1/2 overflow-auto bg-raised p-6 shadow-xl',
        wide ? 'max-w-5xl' : 'max-w-lg'
      ]}
    >
      <div class="mb-3 flex items-baseline justify-between gap-4 border-b border-line pb-2">
        <Dialog.Title class="font-serif text-lg font-semibold">{title}</Dialog.Title>
        <Dialog.Close class="press">Close <span class="key">Esc</span></Dialog.Close>
      </div>
      {@render children()}
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
