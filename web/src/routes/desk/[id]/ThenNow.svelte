<script lang="ts">
  import type { Finding, Suggestion } from '$lib/api/client';
  import { inkOf } from '$lib/groups';
  import { outdented, suggestedBy } from '$lib/suggested';

  let {
    finding,
    suggestion,
    texts,
    group,
    close
  }: {
    finding: Finding;
    suggestion: Suggestion;
    texts: Map<string, string>;
    group: number;
    close: () => void;
  } = $props();
  const mark = $derived(inkOf(group || 1));
  const apart = $derived(new Set(finding.places.map((p) => p.file)).size > 1);
  const then = $derived(
    finding.places
      .filter((p) => apart || p.file === suggestion.path)
      .map((p) => ({
        file: p.file,
        start: p.start_line,
        text: (texts.get(p.file) ?? '').split('\n').slice(p.start_line - 1, p.end_line)
      }))
  );
  const now = $derived(suggestedBy(suggestion, then[0]));
  const files = $derived([...new Set(now.rest.map((c) => c.file))]);

  let frame = $state<HTMLElement>();
  let ribbons = $state<string[]>([]);
  function draw() {
    if (!frame) return;
    const box = frame.getBoundingClientRect();
    const target = frame.querySelector('[data-now]')?.getBoundingClientRect();
    const from = [...frame.querySelectorAll('[data-then]')].map((e) => e.getBoundingClientRect());
    if (!target) return;
    const share = target.height / Math.max(1, from.length);
    ribbons = from.map((r, i) => {
      const [x1, x2] = [r.right - box.left, target.left - box.left];
      const [a, b] = [r.top - box.top + 2, r.bottom - box.top - 2];
      const [c, d] = [target.top - box.top + share * i + 1, target.top - box.top + share * (i + 1) - 1];
      const m = (x1 + x2) / 2;
      return `M${x1} ${a}C${m} ${a} ${m} ${c} ${x2} ${c}L${x2} ${d}C${m} ${d} ${m} ${b} ${x1} ${b}Z`;
    });
  }
  $effect(() => {
    void then;
    void now;
    const observer = new ResizeObserver(draw);
    if (frame) observer.observe(frame);
    draw();
    return () => observer.disconnect();
  });
</script>

<section
  class="flex h-full min-h-0 flex-col border-t-[5px] border-double border-line"
  aria-label="Then and now"
>
  <div class="flex items-baseline gap-4 px-5 py-1">
    <h3>Then / now</h3>
    <span class="quiet truncate">{suggestion.title}</span>
    <span class="grow"></span>
    <span class="quiet whitespace-nowrap">
      {suggestion.lines_before} lines → {suggestion.lines_after}
      {#if suggestion.status === 'proved'}· <span class="text-done">proved to do the same</span>{/if}
    </span>
    <button class="quiet hover:underline" onclick={close}>Close <span class="key">t</span></button>
  </div>
  {#if suggestion.status === 'proved'}
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <div
      class="min-h-0 grow overflow-auto px-5 pb-4"
      tabindex="0"
      role="region"
      aria-label="The code then and now"
    >
      <div bind:this={frame} class="relative grid grid-cols-[minmax(0,1fr)_4rem_minmax(0,1fr)]">
        <svg class="pointer-events-none absolute inset-0 h-full w-full" aria-hidden="true">
          {#each ribbons as d, i (i)}<path
              {d}
              fill={mark.ink}
              opacity="0.16"
              stroke={mark.ink}
              stroke-opacity="0.5"
            />{/each}
        </svg>
        <div class="grid content-start gap-2">
          {#each then as copy, i (i)}
            <pre
              data-then
              class="overflow-hidden border-l-[3px] bg-sunk/60 px-2 py-1 text-[12px]"
              style:border-color={mark.ink}><span class="quiet font-sans"
                >as handed in{then.length > 1 ? `, copy ${i + 1}` : ''}, {apart
                  ? `${copy.file}, `
                  : ''}line {copy.start}</span
              >
{copy.text.join('\n')}</pre>
          {/each}
        </div>
        <div></div>
        <div class="content-start">
          <pre
            data-now
            class="overflow-x-auto border-l-[3px] bg-raised px-2 py-1 text-[12px]"
            style:border-color={mark.ink}><span class="quiet font-sans"
              >as suggested{apart ? `, in ${now.home}` : ''}</span
            >
{now.main}</pre>
          {#if now.rest.length}
            <p class="quiet mt-2 px-2 text-[12px]">
              {suggestion.kind === 'loop'
                ? 'and where else it shows'
                : `in place of ${now.rest.length === 1 ? 'the lines' : 'the copies'}`}
            </p>
            {#each files as file (file)}
              {#if apart}<p class="mono px-2 text-[12px] text-soft">{file}</p>{/if}
              <pre class="overflow-x-auto px-2 text-[12px]">{now.rest
                  .filter((c) => c.file === file)
                  .map((c) => outdented(c.text))
                  .join('\n')}</pre>
            {/each}
          {/if}
        </div>
      </div>
    </div>
  {:else}
    <p class="px-5 pb-4">
      <span class="whitespace-pre-wrap">{suggestion.outline}</span><br /><span class="quiet"
        >There is no code here, because {suggestion.why_not || 'it could not be proved'}.</span
      >
    </p>
  {/if}
</section>
