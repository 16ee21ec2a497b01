<script lang="ts">
  import { api, take, type Report, type Spec } from '$lib/api/client';
  import { points } from '$lib/words';
  import { untrack } from 'svelte';
  import { isSample, sampleOf } from './samples';

  let { spec }: { spec: Spec } = $props();
  let text = $state(sampleOf(untrack(() => spec.language)));
  $effect(() => {
    const other = sampleOf(spec.language);
    if (isSample(untrack(() => text))) text = other;
  });
  let report = $state<Report | null>(null);
  let problem = $state('');

  $effect(() => {
    const asked = { spec: $state.snapshot(spec) as Spec, text };
    let gone = false;
    const timer = setTimeout(async () => {
      try {
        const answer = await take(api.POST('/api/sample', { body: asked }));
        if (!gone) [report, problem] = [answer.report as Report | null, ''];
      } catch (error) {
        if (!gone) [report, problem] = [null, (error as Error).message];
      }
    }, 400);
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  });
</script>

<aside class="flex min-h-0 flex-col border-l border-line" aria-label="Sample">
  <h2 class="px-5 pt-5">What it would say about <em>this</em> program</h2>
  <textarea
    class="code mx-5 mt-2 h-64 shrink-0 resize-y"
    spellcheck="false"
    aria-label="Sample program"
    bind:value={text}></textarea>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div
    class="overflow-auto px-5 py-3"
    tabindex="0"
    role="region"
    aria-label="What it would say"
    aria-live="polite"
  >
    {#if problem}
      <p class="text-seal">{problem}</p>
    {:else if report}
      <ul>
        {#each report.findings as f (f.id)}
          <li class="border-b border-line py-2">
            <span class="quiet">line {f.places.map((p) => p.start_line).join(', ')}</span><br />{f.message}
          </li>
        {:else}
          <li class="py-2 text-done">Nothing to remark.</li>
        {/each}
      </ul>
      <table class="mt-3 w-full">
        <tbody>
          {#each report.scores as s (s.criterion)}
            <tr class="border-b border-line"
              ><td class="py-1">{spec.criteria.find((c) => c.id === s.criterion)?.title ?? s.criterion}</td>
              <td class="quiet">{s.because}</td><td class="text-right whitespace-nowrap"
                >{points(s.points)} of {points(s.of)}</td
              ></tr
            >
          {/each}
        </tbody>
      </table>
    {/if}
  </div>
</aside>
