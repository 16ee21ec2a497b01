<script lang="ts">
  import { scaleLinear } from 'd3-scale';
  import type { ClassMember, Schemas, Spec } from '$lib/api/client';
  import { formatMeasure } from '$lib/words';

  let {
    members,
    sort,
    measure,
    criteria
  }: {
    members: ClassMember[];
    sort: string;
    measure: Schemas['Measure'] | undefined;
    criteria: Spec['criteria'];
  } = $props();
  const WIDTH = 760;
  const unit = $derived(measure?.unit ?? 'share');
  const title = $derived(measure?.title ?? 'Score');
  const values = $derived(
    members.map((m) => ({ m, v: measure ? (m.measures[sort] ?? 0) : m.of ? m.total / m.of : 0 }))
  );
  const top = $derived(unit === 'share' ? 1 : Math.max(1, ...values.map((p) => p.v)));
  const x = $derived(scaleLinear([0, top], [20, WIDTH - 20]).nice());
  const dots = $derived.by(() => {
    const stacks = new Map<number, number>();
    return [...values]
      .sort((a, b) => a.v - b.v)
      .map(({ m, v }) => {
        const bin = Math.round(x(v) / 9);
        const level = stacks.get(bin) ?? 0;
        stacks.set(bin, level + 1);
        return { m, v, cx: bin * 9, cy: 62 - level * 9 };
      });
  });
  const thresholds = $derived(
    criteria
      .filter((c) => c.measure === sort)
      .flatMap((c) =>
        c.levels.map((l) => l.at_most ?? l.at_least).filter((b): b is number => typeof b === 'number')
      )
  );
  const middle = $derived.by(() => {
    const sorted = values.map((p) => p.v).sort((a, b) => a - b);
    const half = sorted.length >> 1;
    return sorted.length % 2 ? (sorted[half] ?? 0) : ((sorted[half - 1] ?? 0) + (sorted[half] ?? 0)) / 2;
  });
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
    role="img"
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
    {#each thresholds as t (t)}
      <line x1={x(t)} x2={x(t)} y1="4" y2="69" class="stroke-seal" stroke-width="1" />
      <line x1={x(t) + 3} x2={x(t) + 3} y1="4" y2="69" class="stroke-seal" stroke-width="2.4" />
    {/each}
    {#each dots as d (d.m.id)}
      <a href="/desk/{d.m.id}" aria-label="{d.m.name}: {formatMeasure(d.v, unit)}"
        ><ellipse
          cx={d.cx}
          cy={d.cy}
          rx="4.3"
          ry="3.4"
          transform="rotate(-18 {d.cx} {d.cy})"
          class="fill-ink hover:fill-seal"><title>{d.m.name}: {formatMeasure(d.v, unit)}</title></ellipse
        ></a
      >
    {/each}
  </svg>
  {#if thresholds.length}<p class="quiet">Red bar lines: where the rubric's levels change.</p>{/if}
</section>
