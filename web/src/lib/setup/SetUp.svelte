<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { untrack } from 'svelte';
  import { api, take, type Spec } from '$lib/api/client';
  import { keepDraft, readDraft } from '$lib/draft';
  import Notice from '$lib/ui/Notice.svelte';
  import Functions from './Functions.svelte';
  import GivenCode from './GivenCode.svelte';
  import Rubric from './Rubric.svelte';
  import Sample from './Sample.svelte';

  type Files = Record<string, string>;
  interface Content {
    spec: Spec;
    starter: Files;
    reference: Files;
  }
  const languages = createQuery(() => ({
    queryKey: ['languages'],
    queryFn: () => take(api.GET('/api/languages'))
  }));
  let {
    initial,
    mayDecide = true,
    file,
    draft,
    said = $bindable(''),
    save
  }: {
    initial: Content;
    mayDecide?: boolean;
    file?: string;
    draft: string;
    said?: string;
    save: (content: Content | { text: string }) => Promise<void>;
  } = $props();

  const kept = untrack(() => JSON.stringify($state.snapshot(initial)));
  const name = untrack(() => draft);
  const found = readDraft<Content>(name);
  let unkept = $state(found !== null && JSON.stringify(found) !== kept);
  let content = $state(found !== null ? found : (JSON.parse(kept) as Content));
  $effect(() => {
    const now = JSON.stringify($state.snapshot(content));
    keepDraft(name, now === kept ? null : JSON.parse(now));
  });
  let problem = $state('');
  let busy = $state(false);
  const spec = $derived(content.spec);
  const limits: [keyof Spec['limits'], string, string][] = [
    ['procedure_statements', 'Longest procedure', 'statements; more is oversized'],
    ['nesting', 'Deepest nesting', 'branches and loops inside each other'],
    ['repeat_statements', 'Shortest repeated block', 'statements, in separate places'],
    ['run_copies', 'Fewest copies in a row', 'that call for a loop']
  ];

  async function keep(what: Content | { text: string }) {
    busy = true;
    problem = said = '';
    try {
      await save(what);
      keepDraft(name, null);
      unkept = false;
      said = 'Kept.';
    } catch (error) {
      problem = (error as Error).message;
    }
    busy = false;
  }

  async function fromFile(files: FileList | null) {
    if (files?.[0]) await keep({ text: await files[0].text() });
  }
</script>

<div class="grid h-full grid-cols-[minmax(0,1fr)_minmax(0,27rem)]">
  <form
    class="overflow-auto px-6 pt-5 pb-20"
    onsubmit={(event) => {
      event.preventDefault();
      keep($state.snapshot(content) as Content);
    }}
  >
    {#if unkept}
      <div class="mb-4 flex items-center gap-3">
        <Notice>These are changes that you made here and have not kept yet.</Notice>
        <button
          type="button"
          class="press"
          onclick={() => {
            content = JSON.parse(kept) as Content;
            unkept = false;
          }}>Throw them away</button
        >
      </div>
    {/if}
    <fieldset disabled={!mayDecide} class="grid gap-8">
      <section class="grid grid-cols-[2fr_1fr_1fr] gap-4">
        <label class="grid gap-1">Title<input bind:value={spec.title} required maxlength="200" /></label>
        <label class="grid gap-1">
          Language
          <select bind:value={spec.language}
            ><option value="auto">as handed in</option>
            {#each languages.data ?? [] as language (language.id)}
              <option value={language.id}>{language.title}</option>
            {/each}
          </select>
        </label>
        <label class="grid gap-1">
          Entry function<input class="mono" bind:value={spec.entry} placeholder="none" />
        </label>
      </section>
      <Functions bind:functions={spec.functions} />
      <section>
        <h2 class="mb-2 border-b border-line pb-1">Limits</h2>
        <div class="grid grid-cols-2 gap-x-8 gap-y-2">
          {#each limits as [key, name, unit] (key)}
            <label class="grid grid-cols-[1fr_4.5rem] items-center gap-x-3">
              <span>{name} <span class="quiet block">{unit}</span></span>
              <input type="number" min="1" max="10000" required bind:value={spec.limits[key]} />
            </label>
          {/each}
        </div>
        <label class="mt-3 flex items-center gap-2">
          <input type="checkbox" bind:checked={spec.rules.documented} /> Every function needs a comment
        </label>
        <label class="mt-3 grid max-w-md gap-1">
          How a file name tells whose work it is
          <input class="mono" bind:value={spec.pattern} placeholder={'{name}_{rest}'} />
        </label>
      </section>
      <Rubric bind:criteria={spec.criteria} />
      <section class="grid grid-cols-2 gap-8">
        <GivenCode title="Starter code" note="Never reported." bind:files={content.starter} />
        <GivenCode
          title="Reference solution"
          note="Helps to find where a missing function's job is done."
          bind:files={content.reference}
        />
      </section>
    </fieldset>
    <div class="mt-8 flex flex-wrap items-center gap-4 border-t border-line pt-4">
      {#if mayDecide}
        <button class="press press-seal" disabled={busy}>Keep the assignment</button>
        <label class="press cursor-pointer">
          Read an assignment file
          <input
            type="file"
            accept=".toml"
            class="sr-only"
            onchange={(e) => fromFile(e.currentTarget.files)}
          />
        </label>
      {/if}
      {#if file}<a class="press no-underline" href={file}>Save as a file</a>{/if}
      {#if said}<Notice>{said}</Notice>{/if}
      {#if problem}<Notice tone="wrong">{problem}</Notice>{/if}
    </div>
  </form>
  <Sample {spec} />
</div>
