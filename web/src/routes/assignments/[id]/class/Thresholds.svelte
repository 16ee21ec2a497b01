<!-- The rubric's thresholds as bar lines on the scale: moved by pointer or arrow keys. -->
<script lang="ts">
  import { thresholdsOf, withThreshold, type Criterion } from '$lib/levels';
  import { formatMeasure } from '$lib/words';

  let {
    criterion,
    unit,
    x,
    change
  }: {
    criterion: Criterion;
    unit: string;
    x: { (value: number): number; invert: (place: number) => number };
    change: (criterion: Criterion) => void;
  } = $props();
  const step = $derived(unit === 'share' ? 0.01 : 1);
  let dragged = $state<number | null>(null);

  function toValue(event: PointerEvent): number {
    const svg = (event.currentTarget as SVGElement).ownerSVGElement!;
    const box = svg.getBoundingClientRect();
    const place = ((event.clientX - box.left) / box.width) * svg.viewBox.baseVal.width;
    return Math.round(x.invert(place) / step) * step;
  }
  function byKey(event: KeyboardEvent, level: number, bound: number) {
    const by = { ArrowLeft: -step, ArrowDown: -step, ArrowRight: step, ArrowUp: step }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    change(withThreshold(criterion, level, bound + by));
  }
</script>

{#each thresholdsOf(criterion) as t (t.level)}
  <g
    role="slider"
    tabindex="0"
    aria-label="Threshold of {criterion.title}, {criterion.levels[t.level]?.points} points"
    aria-valuemin="0"
    aria-valuemax={unit === 'share' ? 1 : 1000}
    aria-valuenow={t.bound}
    aria-valuetext={formatMeasure(t.bound, unit)}
    class="cursor-ew-resize touch-none"
    onkeydown={(event) => byKey(event, t.level, t.bound)}
    onpointerdown={(event) => {
      dragged = t.level;
      event.currentTarget.setPointerCapture(event.pointerId);
    }}
    onpointermove={(event) => {
      if (dragged === t.level) change(withThreshold(criterion, t.level, toValue(event)));
    }}
    onpointerup={() => (dragged = null)}
  >
    <rect x={x(t.bound) - 6} y="2" width="15" height="67" fill="transparent" />
    <line x1={x(t.bound)} x2={x(t.bound)} y1="4" y2="69" class="stroke-seal" stroke-width="1" />
    <line x1={x(t.bound) + 3} x2={x(t.bound) + 3} y1="4" y2="69" class="stroke-seal" stroke-width="2.4" />
  </g>
{/each}
