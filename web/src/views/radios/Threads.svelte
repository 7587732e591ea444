<script lang="ts">
  import Mark from '$parts/Mark.svelte';
  import Frequency from '$parts/Frequency.svelte';
  import type { Preview } from '$lib/api/client';
  import { halfWords, threadsOf } from './threads';

  /** One thread for each channel, down beside the parts: what is lost turns off at the part that loses it. */
  let { preview, tops, bottom }: { preview: Preview; tops: readonly number[]; bottom: number } = $props();
  const t = $derived(threadsOf(preview.rows));
  const gap = $derived(Math.min(4, 108 / Math.max(1, t.total)));
  const x0 = 34;
  /** Those that go through stand left, those that leave first stand right. */
  const order = $derived([...t.part, ...t.whole, ...[...t.at].reverse().flatMap((a) => [...a.lost].reverse())]);
  const x = $derived(new Map(order.map((r, i) => [r.slot, x0 + i * gap + 0.5])));
  const says: Record<string, string> = {
    bands: 'bands it does not receive',
    slots: 'no slot of that number',
    shift: 'a shift it cannot hold',
    tones: 'a tone it does not have',
    names: 'a name it cannot show',
  };
  const partly: Record<string, string> = { bands: 'sent', shift: 'shift', tones: 'tone', names: 'setting' };
  /** Lines below the head of a part: as many as there is room for before the next part. */
  const listed = $derived(
    t.at.map((a, i) => {
      const top = tops[i] ?? 0;
      const room = (tops[i + 1] ?? bottom) - top - 34;
      const most = Math.max(1, Math.floor(room / 17));
      const rows = [...a.lost.map((r) => ({ r, lost: true })), ...a.half.map((r) => ({ r, lost: false }))];
      const shown = rows.length > most ? rows.slice(0, most - 1) : rows;
      return { ...a, top, shown, more: rows.length - shown.length };
    }),
  );
</script>

<div class="threads" style:height="{bottom + 60}px">
  <svg width="150" height={bottom + 12} aria-hidden="true">
    {#each listed as a (a.part)}
      {#each a.shown as s, i (i)}
        {@const y = a.top + 38 + i * 17}
        {@const at = x.get(s.r.slot) ?? 0}
        {#if s.lost}<path class="lost" d="M{at},{tops[0] ?? 0}V{y - 6}Q{at},{y} {at + 6},{y}H148" />{/if}
      {/each}
      {#each a.lost.slice(a.shown.filter((s) => s.lost).length) as r, nth (nth)}
        <path class="lost" d="M{x.get(r.slot) ?? 0},{tops[0] ?? 0}V{a.top + 30}" />
      {/each}
    {/each}
    {#each [...t.whole, ...t.part] as r, nth (nth)}
      {@const at = x.get(r.slot) ?? 0}
      {@const turn = t.at.findIndex((a) => a.half.includes(r))}
      {#if turn >= 0}
        {@const y = (tops[turn] ?? 0) + 26}
        <path class="thread" d="M{at},{tops[0] ?? 0}V{y - 7}" /><path class="thread half" d="M{at},{y + 7}V{bottom}" />
        <path class="turn" d="M{at},{y - 5.5}l5.5,5.5l-5.5,5.5l-5.5,-5.5Z" />
      {:else}<path class="thread" d="M{at},{tops[0] ?? 0}V{bottom}" />{/if}
      <path class="end" d="M{at - 1.6},{bottom}h3.2" />
    {/each}
  </svg>
  <b class="sum" style:top="{(tops[0] ?? 0) + 2}px">{t.total}</b>
  {#each listed as a, i (a.part)}
    {#if i > 0}<b class="sum" style:top="{a.top + 2}px">{t.at[i - 1]?.left}</b>{/if}
    <div class="at" style:top="{a.top + 2}px">
      {#if a.lost.length > 0}<p class="head"><b class="minus">−{a.lost.length}</b> {says[a.part]}</p>
      {:else if a.half.length > 0}<p class="head">{a.half.length} with another {partly[a.part] ?? 'setting'}</p>
      {:else}<p class="head">nothing lost</p>{/if}
      <ul>
        {#each a.shown as s, nth (nth)}
          <li>
            <Mark kind={s.lost ? 'stop' : 'conflict'} size={11} /><span class="slot">{s.r.slot}</span><span
              class="truncate">{s.r.channel.name || 'no name'}</span
            >{#if s.lost && a.part === 'bands'}<span class="figure"><Frequency hz={s.r.channel.receive_hz} /></span
              >{:else if !s.lost}<span class="why" title={s.r.losses.map((l) => l.why).join('; ')}
                >{halfWords(s.r)}</span
              >{/if}
          </li>
        {/each}
        {#if a.more > 0}<li class="text-ink2">and {a.more} more</li>{/if}
      </ul>
    </div>
  {/each}
  <div class="foot" style:top="{bottom + 8}px">
    <b class="sum">{t.whole.length + t.part.length}</b>
    <p>
      <b>{t.whole.length}</b> as they are{#if t.part.length > 0}, <b class="text-conflict">{t.part.length} in part</b
        >{/if}
    </p>
  </div>
</div>

<style>
  .threads {
    position: relative;
  }
  svg {
    position: absolute;
    left: 0;
    top: 0;
    overflow: visible;
  }
  .thread {
    stroke: var(--ink);
    stroke-width: 1.1;
    fill: none;
  }
  .half {
    stroke-dasharray: 3 2.4;
  }
  .lost {
    stroke: var(--ink2);
    stroke-width: 0.9;
    fill: none;
  }
  .turn {
    fill: var(--conflict);
  }
  .end {
    stroke: var(--ink);
    stroke-width: 2;
  }
  .sum {
    position: absolute;
    left: 0;
    width: 24px;
    text-align: right;
    font: var(--w-strong) 15px/20px var(--figs);
  }
  .at {
    position: absolute;
    left: 152px;
    right: 0;
  }
  .head {
    height: 28px;
    font-size: var(--t-label);
    line-height: 20px;
    color: var(--ink2);
  }
  .minus {
    font: var(--w-strong) 15px/20px var(--figs);
    color: var(--stop);
  }
  li {
    display: flex;
    gap: 6px;
    align-items: center;
    height: 17px;
    font-size: var(--t-small);
    white-space: nowrap;
  }
  .slot {
    width: 26px;
    text-align: right;
    font-family: var(--figs);
    color: var(--ink2);
  }
  .truncate {
    flex: 0 1 auto;
    min-width: 60px;
  }
  .figure,
  .why {
    margin-left: auto;
    color: var(--stop);
  }
  .why {
    overflow: hidden;
    text-overflow: ellipsis;
    color: var(--ink2);
    font-size: var(--t-label);
  }
  .foot {
    position: absolute;
    left: 0;
    right: 0;
    padding-left: 34px;
  }
  .foot .sum {
    top: 0;
  }
  .foot b {
    font-weight: var(--w-strong);
  }
</style>
