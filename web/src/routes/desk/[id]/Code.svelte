<script lang="ts">
  import type { EditorView } from '@codemirror/view';
  import type { Finding, Report } from '$lib/api/client';
  import { bracketsOf, groupsOf } from '$lib/groups';
  import { light, makeEditor } from './code';

  let {
    path,
    text,
    language,
    report,
    selected,
    choose
  }: {
    path: string;
    text: string;
    language: string;
    report: Report | null;
    selected: Finding | null;
    choose: (finding: string) => void;
  } = $props();
  let holder: HTMLElement;
  let view: EditorView | undefined = $state.raw();

  $effect(() => {
    const brackets = bracketsOf(groupsOf(report), path);
    const procedures = (report?.procedures ?? [])
      .filter((p) => p.file === path && p.name)
      .map((p) => ({ start: p.start_line, end: p.end_line }));
    const made = makeEditor(holder, text, language, brackets, procedures, selected?.id ?? '', (line) => {
      const inner = brackets.filter((b) => b.start <= line && line <= b.end).at(-1);
      if (inner) choose(inner.group.finding.id);
    });
    view = made;
    return () => made.destroy();
  });
  $effect(() => {
    if (!view || !selected) return;
    const spans = selected.places
      .filter((p) => p.file === path)
      .map((p) => ({ start: p.start_line, end: p.end_line }));
    light(view, spans);
  });
</script>

<div bind:this={holder} class="h-full min-h-0 overflow-hidden"></div>

<style>
  div :global(.bracket-row) {
    position: relative;
    height: 100%;
    width: 5.2rem;
    cursor: pointer;
  }
  div :global(.bracket) {
    position: absolute;
    top: 0;
    bottom: 0;
    left: calc(var(--lane) * 1.75rem + 1.35rem);
    width: 0.5rem;
    border-left: 3px solid var(--ink-here);
  }
  div :global(.bracket.hatch) {
    border-left-style: dashed;
  }
  div :global(.bracket.lit) {
    border-left-width: 5px;
  }
  div :global(.bracket.top) {
    border-top: 2px solid var(--ink-here);
    top: 3px;
  }
  div :global(.bracket.bottom) {
    border-bottom: 2px solid var(--ink-here);
    bottom: 3px;
  }
  div :global(.bracket.single) {
    border-top: 2px solid var(--ink-here);
    border-bottom: 2px solid var(--ink-here);
    top: 3px;
    bottom: 3px;
  }
  div :global(.bracket span) {
    position: absolute;
    right: calc(100% + 5px);
    top: -2px;
    font: 500 11px/1.4 var(--font-sans);
    color: var(--ink-here);
    background: var(--ground);
    padding-inline: 1px;
    z-index: 1;
  }
</style>
