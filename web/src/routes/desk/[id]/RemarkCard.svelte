<script lang="ts">
  import type { Finding, Schemas, Suggestion } from '$lib/api/client';
  import { inkOf } from '$lib/groups';
  import { HINTS } from '$lib/words';
  import Differs from './Differs.svelte';

  let {
    remark,
    finding,
    suggestion,
    title,
    group,
    open,
    choose,
    change,
    drop,
    showThenNow
  }: {
    remark: Schemas['Remark'];
    finding: Finding | null;
    suggestion: Suggestion | null;
    title: string;
    group: number;
    open: boolean;
    choose: () => void;
    change: (what: Schemas['PatchedRemarkChangeRequest']) => void;
    drop: () => void;
    showThenNow: () => void;
  } = $props();
  const mark = $derived(group ? inkOf(group) : null);
  const where = $derived(
    finding?.whole
      ? 'the whole program'
      : finding
        ? finding.places.length > 1
          ? `${finding.places.length} places`
          : `line ${finding.places[0]?.start_line ?? '–'}`
        : remark.line
          ? `line ${remark.line}`
          : 'the whole'
  );
  let article: HTMLElement;
  $effect(() => {
    if (open) article.scrollIntoView({ block: 'nearest' });
  });
</script>

<article
  bind:this={article}
  class={['border-b border-line', open && 'bg-raised', remark.state === 'aside' && 'opacity-70']}
  data-remark={remark.id}
  data-state={remark.state}
>
  <button
    class="grid w-full grid-cols-[1.6rem_1fr] px-4 py-2 text-left"
    aria-expanded={open}
    onclick={choose}
  >
    <span class="font-serif font-semibold" style:color={mark?.ink}>{mark?.letter ?? '·'}</span>
    <span class={remark.state === 'aside' ? 'line-through decoration-soft' : ''}>
      {remark.words || finding?.message || ''}
      <span class="quiet block">
        {finding ? title : 'Your own remark'} · {where}{#if remark.state === 'accepted'}
          · <span class="text-done">accepted</span>{:else if remark.state === 'aside'}
          · set aside{/if}{#if remark.hint}
          · {remark.hint}{/if}
      </span>
    </span>
  </button>
  {#if open}
    <div class="px-4 pb-3 pl-[2.6rem]">
      <div class="flex flex-wrap items-center gap-x-1 gap-y-1">
        <button
          class={['press', remark.state === 'accepted' && 'text-done']}
          aria-pressed={remark.state === 'accepted'}
          onclick={() => change({ state: remark.state === 'accepted' ? 'open' : 'accepted' })}
          >Accept <span class="key">a</span></button
        >
        {#if finding}
          <button
            class="press"
            aria-pressed={remark.state === 'aside'}
            onclick={() => change({ state: remark.state === 'aside' ? 'open' : 'aside' })}
            >Set aside <span class="key">x</span></button
          >
        {:else}
          <button class="press" onclick={drop}>Take back</button>
        {/if}
        {#if suggestion}<button class="press" onclick={showThenNow}
            >Then / now <span class="key">t</span></button
          >{/if}
      </div>
      <label class="mt-2 grid gap-1">
        <span class="quiet">In your words <span class="key">e</span></span>
        <textarea
          rows="2"
          data-words
          class="w-full"
          placeholder={finding?.message ?? ''}
          value={remark.words}
          onchange={(e) => change({ words: e.currentTarget.value })}></textarea>
      </label>
      {#if finding}
        <label class="mt-2 flex items-center gap-2">
          <span class="quiet">Hint level</span>
          <select
            value={remark.hint ?? ''}
            onchange={(e) => change({ hint: e.currentTarget.value as 'where' | 'shape' | 'answer' | '' })}
          >
            <option value="">as for all</option>
            {#each Object.entries(HINTS) as [value, label] (value)}<option {value}>{label}</option>{/each}
          </select>
        </label>
        {#if group}<Differs {finding} />{/if}
      {/if}
    </div>
  {/if}
</article>
