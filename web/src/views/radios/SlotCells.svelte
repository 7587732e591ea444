<script lang="ts">
  import Wide from '$parts/Wide.svelte';
  import type { Preview } from '$lib/api/client';

  /** Its slots as cells, those of the plan beyond the last one, and where these would go. */
  let { preview, first, last }: { preview: Preview; first: number; last: number } = $props();
  const moves = $derived(preview.drawing.moves);
  const kept = $derived(new Set(preview.rows.filter((r) => r.lost === '').map((r) => r.slot)));
  const beyond = $derived(preview.rows.filter((r) => r.lost === 'slots').map((r) => r.slot));
  /** Only so many cells can be read: a large radio shows its first ones and how many follow. */
  const most = 30;
  const top = $derived(Math.max(last, ...beyond));
  const shown = $derived.by(() => {
    const all = Math.min(most, top - first + 1);
    const cells = [...Array(Math.max(0, all)).keys()].map((i) => first + i);
    if (beyond.length === 0 || last - first < most) return cells;
    return cells;
  });
  const w = $derived(636 / Math.max(20, shown.length));
  const x = (slot: number) => (slot - first) * w;
  const drawn = $derived(moves.filter((m) => shown.includes(m.from) && shown.includes(m.to)));
  const label = $derived(
    `Slots ${String(first)} to ${String(last)}` +
      (beyond.length > 0
        ? `; ${beyond.join(', ')} lie beyond`
        : '; every channel of the plan has a slot of its number'),
  );
</script>

<Wide label="Slots as a drawing">
  <svg class="d" width="638" height="56" viewBox="0 0 638 56" role="img" aria-label={label}>
    {#each drawn as m, nth (nth)}
      {@const [a, b] = [x(m.from) + w / 2, x(m.to) + w / 2]}
      {@const r = 8 + Math.abs(a - b) * 0.045}
      <path class="move" d="M{a},31C{a},{31 - r * 1.4} {b},{31 - r * 1.4} {b},29" />
      <path class="head" d="M{b - 3.2},25.5L{b},31L{b + 3.2},25.5Z" />
    {/each}
    {#each shown as s, nth (nth)}
      {@const out = s > last}
      {@const lost = beyond.includes(s)}
      <rect class="cell" class:out x={x(s) + 0.5} y="32.5" width={w} height="20" />
      {#if !out || lost}<text
          class="fg {lost ? 'lost' : kept.has(s) ? 'held' : 'quiet'}"
          x={x(s) + w / 2}
          y="46.5"
          text-anchor="middle">{s}</text
        >{/if}
    {/each}
    {#if shown.length < last - first + 1}<text class="quiet" x="636" y="24" text-anchor="end">and on to {last}</text
      >{/if}
  </svg>
</Wide>

<style>
  .cell {
    fill: none;
    stroke: var(--rule2);
  }
  .cell.out {
    stroke-dasharray: 2 2;
  }
  .move {
    stroke: var(--accent);
    stroke-width: 1.2;
    stroke-dasharray: 4 3;
    fill: none;
  }
  .head {
    fill: var(--sheet);
    stroke: var(--accent);
    stroke-width: 1.1;
  }
</style>
