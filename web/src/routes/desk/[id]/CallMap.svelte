<script lang="ts">
  import dagre from '@dagrejs/dagre';
  import type { Report } from '$lib/api/client';

  let { report }: { report: Report } = $props();

  const map = $derived.by(() => {
    const graph = new dagre.graphlib.Graph();
    graph.setGraph({ rankdir: 'LR', nodesep: 14, ranksep: 46, marginx: 8, marginy: 8 });
    graph.setDefaultEdgeLabel(() => ({}));
    for (const p of report.procedures) {
      const name = p.name || 'main program';
      graph.setNode(name, {
        width: name.length * 7.6 + 26,
        height: 22 + Math.min(40, p.statements) * 0.7,
        statements: p.statements
      });
    }
    for (const p of report.procedures) {
      for (const called of p.calls) graph.setEdge(p.name || 'main program', called);
    }
    dagre.layout(graph);
    const nodes = graph.nodes().map((name) => ({ name, ...graph.node(name) }));
    const edges = graph.edges().map((e) => graph.edge(e).points as { x: number; y: number }[]);
    const { width = 0, height = 0 } = graph.graph();
    return { nodes, edges, width, height };
  });
  function curve(points: { x: number; y: number }[]): string {
    return points.map((p, i) => `${i ? 'L' : 'M'}${p.x} ${p.y}`).join('');
  }
</script>

<p class="quiet mb-2">From caller to called. The taller a box, the more statements of its own.</p>
<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="overflow-auto" tabindex="0" role="region" aria-label="Call map">
  <svg
    width={map.width}
    height={map.height}
    viewBox="0 0 {map.width} {map.height}"
    role="img"
    aria-label="Call map: {report.procedures
      .map((p) => `${p.name || 'the main program'} calls ${p.calls.join(', ') || 'nothing'}`)
      .join('; ')}"
  >
    {#each map.edges as points, i (i)}
      <path d={curve(points)} fill="none" class="stroke-soft" />
      {#if points.length}<circle cx={points.at(-1)?.x} cy={points.at(-1)?.y} r="3" class="fill-soft" />{/if}
    {/each}
    {#each map.nodes as n (n.name)}
      <rect
        x={(n.x ?? 0) - n.width / 2}
        y={(n.y ?? 0) - n.height / 2}
        width={n.width}
        height={n.height}
        class="fill-raised stroke-ink"
      />
      <line
        x1={(n.x ?? 0) - n.width / 2 + 4}
        x2={(n.x ?? 0) - n.width / 2 + 4}
        y1={(n.y ?? 0) - n.height / 2}
        y2={(n.y ?? 0) + n.height / 2}
        class="stroke-ink"
      />
      <text x={(n.x ?? 0) + 3} y={(n.y ?? 0) + 4} text-anchor="middle" class="fill-ink font-mono text-[12px]"
        >{n.name}</text
      >
    {/each}
  </svg>
</div>
