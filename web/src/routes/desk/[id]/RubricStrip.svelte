<script lang="ts">
  import type { Schemas, Spec } from '$lib/api/client';
  import { keyboard } from '$lib/keys.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import Notice from '$lib/ui/Notice.svelte';
  import { points } from '$lib/words';

  let {
    marks,
    spec,
    set
  }: {
    marks: Schemas['Mark'][];
    spec: Spec;
    set: (mark: Schemas['Mark'], level: number | null, reason: string) => Promise<void>;
  } = $props();
  let editing = $state<Schemas['Mark'] | null>(null);
  let level = $state(1);
  let reason = $state('');
  let problem = $state('');
  const judged = $derived(marks.filter((m) => (m.set_points ?? m.points) !== null));
  const total = $derived(judged.reduce((sum, m) => sum + (m.set_points ?? m.points ?? 0), 0));
  const outOf = $derived(judged.reduce((sum, m) => sum + m.of, 0));

  function levelsOf(criterion: string) {
    return spec.criteria.find((c) => c.id === criterion)?.levels ?? [];
  }
  function edit(mark: Schemas['Mark']) {
    editing = mark;
    level = mark.set_level ?? mark.level ?? 1;
    reason = mark.reason ?? '';
    problem = '';
  }
  $effect(() =>
    keyboard.add(
      'Rubric',
      marks
        .slice(0, 9)
        .map((mark, i) => ({ key: String(i + 1), does: `Judge “${mark.title}”`, run: () => edit(mark) }))
    )
  );
  async function keep(wanted: number | null) {
    if (!editing) return;
    try {
      await set(editing, wanted, reason);
      editing = null;
    } catch (error) {
      problem = (error as Error).message;
    }
  }
</script>

<section aria-label="Rubric" class="flex border-t-[5px] border-double border-line">
  <ol class="grid grow auto-cols-fr grid-flow-col">
    {#each marks as mark (mark.criterion)}
      {@const now = mark.set_level ?? mark.level}
      <li class="border-r border-line">
        <button
          class="h-full w-full px-3 py-2 text-left hover:bg-sunk"
          onclick={() => edit(mark)}
          title={now ? levelsOf(mark.criterion)[now - 1]?.text : 'Still to be judged'}
        >
          <span class="flex items-baseline justify-between gap-2 font-serif leading-tight font-semibold">
            <span>{mark.title}</span>
            <span class={['font-sans whitespace-nowrap', mark.set_level !== null && 'text-seal']}
              >{points(mark.set_points ?? mark.points)}/{points(mark.of)}</span
            >
          </span>
          <span class="quiet mt-0.5 block text-[12.5px] leading-snug">
            {#if mark.set_level !== null}set by {mark.set_by || 'a teacher'}: {mark.reason ||
                'judged'}{:else}{mark.because}{/if}
          </span>
        </button>
      </li>
    {/each}
  </ol>
  <p
    class="self-center px-4 text-center font-serif text-xl font-semibold whitespace-nowrap"
    aria-label="Total"
  >
    {points(total)} <span class="quiet font-normal">of {points(outOf)}</span>
  </p>
</section>

<Dialog
  bind:open={() => editing !== null, (open) => (editing = open ? editing : null)}
  title={editing?.title ?? ''}
>
  {#if editing}
    <p class="quiet mb-2">Measured: {editing.because}</p>
    <fieldset class="grid gap-1">
      <legend class="sr-only">Level</legend>
      {#each levelsOf(editing.criterion) as l, i (i)}
        <label class="flex items-baseline gap-2 py-0.5">
          <input type="radio" name="level" value={i + 1} bind:group={level} />
          <span class="w-8 text-right font-semibold">{points(l.points)}</span><span
            >{l.text}{#if editing.level === i + 1}<span class="quiet"> (as measured)</span>{/if}</span
          >
        </label>
      {/each}
    </fieldset>
    <label class="mt-3 grid gap-1"
      >Reason, for teachers only<textarea rows="2" bind:value={reason}></textarea></label
    >
    {#if problem}<div class="mt-2"><Notice tone="wrong">{problem}</Notice></div>{/if}
    <div class="mt-4 flex gap-2">
      <button class="press press-seal" onclick={() => keep(level)}>Set the level</button>
      {#if editing.set_level !== null}<button class="press" onclick={() => keep(null)}
          >Back to what was measured</button
        >{/if}
      <button class="press" onclick={() => (editing = null)}>Leave as it is</button>
    </div>
  {/if}
</Dialog>
