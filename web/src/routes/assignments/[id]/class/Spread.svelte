<script lang="ts">
  import { scaleLinear } from 'd3-scale';
  import type { ClassMember, Schemas, Spec } from '$lib/api/client';
  import { countLevels, type Criterion } from '$lib/levels';
  import { formatMeasure, plural, points } from '$lib/words';
  import Thresholds from './Thresholds.svelte';

  let {
    members,
    sort,
    measure,
    criteria,
    use
  }: {
    members: ClassMember[];
    sort: string;
    measure: Schemas['Measure'] | undefined;
    criteria: Spec['criteria'];
    use: (criteria: Spec['criteria']) => Promise<void>;
  } = $props();
  const WIDTH = 760;
  const BASE = 62;
  const unit = $derived(measure?.unit ?? 'share');
  const title = $derived(measure?.title ?? 'Score');
  const values = $derived(
    members.map((m) => ({ m, v: measure ? (m.measures[sort] ?? 0) : m.of ? m.total / m.of : 0 }))
  );
  const top = $derived(unit === 'share' ? 1 : Math.max(1, ...values.map((p) => p.v)));
  const x = $derived(scaleLinear([0, top], [20, WIDTH - 20]).nice());
  const stacks = $derived.by(() => {
    const bins = new Map<number, typeof values>();
    for (const point of [...values].sort((a, b) => a.v - b.v)) {
      const bin = Math.round(x(point.v) / 9);
      bins.set(bin, [...(bins.get(bin) ?? []), point]);
    }
    return bins;
  });
  // A tall stack is set closer, so that the tallest still fits.
  const rise = $derived(
    Math.min(9, 56 / Math.max(1, Math.max(...[...stacks.values()].map((s) => s.length)) - 1))
  );
  const dots = $derived(
    [...stacks].flatMap(([bin, stack]) =>
      stack.map(({ m, v }, level) => ({ m, v, cx: bin * 9, cy: BASE - level * rise }))
    )
  );
  const written = $derived(criteria.find((c) => c.measure === sort));
  let moved = $state<Criterion | null>(null);
  const criterion = $derived(moved && moved.measure === sort ? moved : written);
  const counts = $derived(
    criterion
      ? countLevels(
          criterion.levels,
          values.map((p) => p.v)
        )
      : []
  );
  const changed = $derived(moved !== null && moved.measure === sort);
  const middle = $derived.by(() => {
    const sorted = values.map((p) => p.v).sort((a, b) => a - b);
    const half = sorted.length >> 1;
    return sorted.length % 2 ? (sorted[half] ?? 0) : ((sorted[half - 1] ?? 0) + (sorted[half] ?? 0)) / 2;
  });
  let problem = $state('');

  async function keep() {
    problem = '';
    try {
      await use(criteria.map((c) => (c.id === moved?.id ? moved : c)));
      moved = null;
    } catch (error) {
      problem = (error as Error).message;
    }
  }
</script>

<section class="mt-8" aria-label="Spread">
  <h2>
    {title} across the class
    <span class="quiet font-sans font-normal"
      >half of the class is at {formatMeasure(middle, unit)} or below</span
    >
  </h2>
  <svg
    viewBox="0 0 {WIDTH} 92"
    class="w-full max-w-4xl"
    role="group"
    aria-label="{title}: {values.length} programs from {formatMeasure(
      Math.min(...values.map((p) => p.v)),
      unit
    )} to {formatMeasure(Math.max(...values.map((p) => p.v)), unit)}"
  >
    <line x1="16" x2={WIDTH - 16} y1="69" y2="69" class="stroke-soft" />
    {#each x.ticks(6) as tick (tick)}
      <line x1={x(tick)} x2={x(tick)} y1="69" y2="73" class="stroke-soft" />
      <text x={x(tick)} y="86" text-anchor="middle" class="fill-soft text-[11px]"
        >{formatMeasure(tick, unit)}</text
      >
    {/each}
    {#each dots as d (d.m.id)}
      <a href="/desk/{d.m.id}" aria-label="{d.m.name}: {formatMeasure(d.v, unit)}"
        ><ellipse
          cx={d.cx}
          cy={d.cy}
          rx="4.3"
          ry="3.4"
          transform="rotate(-18 {d.cx} {d.cy})"
          class="fill-ink stroke-ground hover:fill-seal"
          stroke-width="0.6"><title>{d.m.name}: {formatMeasure(d.v, unit)}</title></ellipse
        ></a
      >
    {/each}
    {#if criterion}
      <Thresholds {criterion} {unit} {x} change={(to) => (moved = to)} />
    {/if}
  </svg>
  {#if criterion}
    <p class="quiet" aria-live="polite">
      {criterion.title}:
      {#each criterion.levels as level, i (i)}{i ? ', ' : ''}{points(level.points)} points to {plural(
          counts[i] ?? 0,
          'program'
        )}{/each}. Move the red bar lines to try other thresholds.
    </p>
    {#if changed}
      <div class="mt-2 flex gap-2">
        <button class="press press-seal" onclick={keep}>Use these levels</button>
        <button class="press" onclick={() => (moved = null)}>Put them back</button>
      </div>
    {/if}
    {#if problem}<p class="mt-2 text-seal" role="alert">{problem}</p>{/if}
  {/if}
</section>
