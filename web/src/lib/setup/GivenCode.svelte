<script lang="ts">
  let {
    title,
    note,
    files = $bindable()
  }: { title: string; note: string; files: Record<string, string> } = $props();

  async function read(list: FileList | null) {
    const read: Record<string, string> = {};
    for (const file of list ?? []) read[file.name] = await file.text();
    files = read;
  }
  const names = $derived(Object.keys(files));
</script>

<div>
  <h2 class="mb-1 border-b border-line pb-1">{title}</h2>
  <p class="quiet">{note}</p>
  <ul class="mono my-1">
    {#each names as name (name)}<li>{name}</li>{:else}<li class="quiet font-sans">None.</li>{/each}
  </ul>
  <label class="press cursor-pointer">
    {names.length ? 'Take others' : 'Take files'}
    <input
      type="file"
      multiple
      class="sr-only"
      aria-label={title}
      onchange={(e) => read(e.currentTarget.files)}
    />
  </label>
  {#if names.length}<button type="button" class="press" onclick={() => (files = {})}>Take out</button>{/if}
</div>
