<script lang="ts">
  import type { ClassMember } from '$lib/api/client';
  import { inkOf } from '$lib/groups';

  let { member }: { member: ClassMember } = $props();
  const WIDTH = 106;
  const s = $derived(member.silhouette);
  const step = $derived(s.lengths.length > 110 ? 210 / s.lengths.length : 1.9);
  const height = $derived(Math.max(40, s.lengths.length * step + s.heads.length * 3 + 4));
  const rows = $derived.by(() => {
    let y = 2;
    return s.lengths.map((length, i) => {
      if (i && s.heads.includes(i)) y += 3;
      const row = { y, x: 7 + (s.indents[i] ?? 0) * 0.95, length: length * 0.95, group: s.groups[i] ?? 0 };
      y += step;
      return row;
    });
  });
  const groups = $derived([...new Set(s.groups.filter(Boolean))]);
  const label = $derived(
    `${member.name}: ${s.lengths.length} lines, ${s.heads.length} functions` +
      (groups.length ? `, repeats ${groups.map((g) => inkOf(g).letter).join(', ')}` : ', nothing repeated')
  );
</script>

<svg
  viewBox="0 0 {WIDTH} {height}"
  role="img"
  aria-label={label}
  class="block w-full border-b border-line"
  preserveAspectRatio="xMinYMax meet"
>
  <g>
    {#each rows as row, i (i)}
      {#if row.group}
        {@const mark = inkOf(row.group)}
        <line
          x1="2.5"
          x2="2.5"
          y1={row.y - step / 2}
          y2={row.y + step / 2}
          stroke={mark.ink}
          stroke-width="2.4"
        />
        <line
          x1={row.x}
          x2={Math.min(WIDTH - 1, row.x + row.length)}
          y1={row.y}
          y2={row.y}
          stroke={mark.ink}
          stroke-width={Math.min(1.4, step * 0.75)}
          stroke-dasharray={mark.hatch}
        />
      {:else}
        <line
          x1={row.x}
          x2={Math.min(WIDTH - 1, row.x + row.length)}
          y1={row.y}
          y2={row.y}
          class="stroke-ink"
          opacity="0.62"
          stroke-width={Math.min(1.1, step * 0.6)}
        />
      {/if}
      {#if s.heads.includes(i)}
        <line x1="6" x2={WIDTH} y1={row.y - 2.6} y2={row.y - 2.6} class="stroke-line" stroke-width="0.8" />
      {/if}
    {/each}
  </g>
</svg>
