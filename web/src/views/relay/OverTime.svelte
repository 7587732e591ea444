<script lang="ts">
  import { bars, postOf, sec, wrap, type Ground, type Over, type Scale } from './draw';

  /** One over: who transmits when, how long to wait, and when to key again. */
  let { o, g, s, vehicle, timeout }: { o: Over; g: Ground; s: Scale; vehicle: string; timeout: number } = $props();
  const list = $derived(bars(o.sent, g, s, o.release));
  /** Of what opens first at each post: its squelch, and its tone. */
  const met = $derived(
    ['A', 'B', 'endA', 'endB'].flatMap((of) => {
      const m = o.met.find((x) => x.of === of && x.open >= 0 && x.carrier < o.release - 0.5);
      return m ? [{ ...m, x: postOf(g, of) }] : [];
    }),
  );
  const near = $derived(o.speaks === 'A' ? g.left : g.right);
  const x = $derived(Math.min(near, g.right) + 16);
  const sum = $derived(wrap(`${o.parts.map((p) => `${p.name} ${sec(p.seconds)}`).join(', ')}`, g.a - g.left - 24));
  const side = $derived(o.speaks === 'A' ? 'A' : 'B');
  /** The way of the first word: from the key to the far ear, as far as it comes. */
  const way = $derived.by(() => {
    const order = o.speaks === 'A' ? ['endA', 'A', 'B', 'endB'] : ['endB', 'B', 'A', 'endA'];
    const sent = (of: string) => o.sent.find((b) => b.of === of)?.from;
    const hops: { from: string; to: string; start: number; end: number; air: boolean }[] = [];
    const [a, b, c, d] = order as [string, string, string, string];
    for (const [from, to] of [
      [a, b],
      [c, d],
    ] as const) {
      const m = met.find((x) => x.of === to);
      const start = sent(from);
      if (m && start !== undefined) hops.push({ from, to, start, end: m.carrier, air: true });
      const on = from === a ? sent(c) : undefined;
      if (m && on !== undefined && from === a) hops.push({ from: to, to: c, start: m.open, end: on, air: false });
    }
    return hops;
  });
  /** The vehicle sends to who spoke, and cannot hear. */
  const deaf = $derived(o.sent.filter((b) => b.of === side && b.to > o.release));
</script>

<text class="hd" x={g.phone ? 0 : g.left + 16} y={g.time + 21}>One over: who transmits when</text>
{#if !g.phone}<text class="sn" x="0" y={g.time + 21}>seconds</text>{/if}
<rect class="on" x={g.phone ? g.width - 130 : g.b + 16} y={g.time + 11} width="9" height="11" />
<text class="sl" x={(g.phone ? g.width - 130 : g.b + 16) + 14} y={g.time + 21}>speech</text>
<rect class="tail" x={g.phone ? g.width - 66 : g.b + 88} y={g.time + 11} width="9" height="11" />
<text class="sl" x={(g.phone ? g.width - 66 : g.b + 88) + 14} y={g.time + 21}>carrier{g.phone ? '' : ' only'}</text>

{#each [[s.ticks[0]?.y ?? 0, s.from], [s.to, s.foot]] as [from, to], k (k)}
  <rect class="edge" x={g.phone ? 22 : 30} y={from} width="4" height={Math.max(0, (to ?? 0) - (from ?? 0))} />
{/each}
{#each s.ticks as t, i (i)}<text class="sd" x={g.phone ? 18 : 25} y={t.y + 4} text-anchor="end">{t.says}</text><path
    class="edge"
    d="M{g.phone ? 20 : 28},{t.y}h6"
  />{/each}

{#each met as m, nth (nth)}
  <rect class="sq" x={m.x - 2.5} y={s.y(m.carrier)} width="5" height={Math.max(0, s.y(m.squelch) - s.y(m.carrier))} />
  {#if m.open > m.squelch + 0.001}<path class="dec" d="M{m.x},{s.y(m.squelch)}V{s.y(m.open)}" />{/if}
  {#if !g.phone}
    <text class="sl" x={m.x - 12} y={s.y(m.carrier) + 14} text-anchor="end">squelch {sec(m.squelch - m.carrier)}</text>
    {#if m.open > m.squelch + 0.001}<text class="sl" x={m.x - 12} y={s.y(m.carrier) + 30} text-anchor="end"
        >tone {sec(m.open - m.squelch)}</text
      >{/if}
  {/if}
{/each}
{#each way as h, i (i)}
  {@const [x1, x2] = [postOf(g, h.from), postOf(g, h.to)]}
  {@const dir = Math.sign(x2 - x1)}
  <path class="go" d="M{x1 + 4.5 * dir},{s.y(h.start)}L{x2 - 6 * dir},{s.y(h.end)}" />
  {#if h.air}<path class="gh" d="M{x2 - 5 * dir},{s.y(h.end)}l{-8 * dir},-4v8Z" />
  {:else if !g.phone}<text class="sl" x={(x1 + x2) / 2} y={s.y(h.start) - 4} text-anchor="middle"
      >turns {sec(h.end - h.start)}</text
    >{/if}
{/each}
{#each list as b, i (i)}<rect class={b.speech ? 'on' : 'tail'} x={b.x - 4.5} y={b.y} width="9" height={b.h} />{/each}
{#each [g.left, g.a, g.b, g.right] as px (px)}{#if list.some((b) => b.x === px && b.y <= s.from + 1 && b.y + b.h >= s.from - 1)}<path
      class="break"
      d="M{px - 6},{s.from + 4}l4,8l4,6l4,8"
    />{/if}{/each}
{#each deaf as d, i (i)}
  <rect
    class="deaf"
    x={near + 5}
    y={s.y(d.from)}
    width="9"
    height={Math.max(0, Math.min(s.y(d.to), s.foot) - s.y(d.from))}
  />
{/each}

{#if o.wait >= 0}
  <path class="mark" d="M{g.phone ? 26 : 34},{s.y(o.wait)}H{g.width}" />
  <text class="wt halo" {x} y={s.y(o.wait) - 8}
    >{g.phone ? `Speak after ${sec(o.wait)} s` : `Speak from here, after ${sec(o.wait)} s.`}</text
  >
  {#if !g.phone}{#each sum as t, i (i)}<text class="sn" {x} y={s.y(o.wait) + 15 + 14 * i}>{t}</text>{/each}{/if}
{:else}
  <text class="wt co" {x} y={s.ticks[0] ? s.ticks[0].y + 60 : 0}>Nothing is heard: {o.breaks} stays shut.</text>
{/if}
{#if !g.phone}<text class="sn" {x} y={s.to - 8}
    >you speak; {vehicle}’s time-out: {timeout === 0 ? 'off' : `${String(timeout)} min`}</text
  >{/if}
<text {x} y={s.y(o.release) + 4}>you let go</text>
{#if o.again > 0.25}
  <path class="mark" d="M{g.phone ? 26 : 34},{s.y(o.release + o.again)}H{g.a}" />
  <text class="wt" {x} y={s.y(o.release + o.again) + 15}
    >{g.phone ? `Again after ${sec(o.again, 1)} s` : `Key again from here, after ${sec(o.again, 1)} s.`}</text
  >
  {#if !g.phone}
    {#each wrap(`Until the tail drops, ${vehicle} is sending to you and cannot hear you.${o.lost > 0 ? ` Key after ${sec(o.gap, 0)} s: you lose ${sec(o.lost, 1)} s.` : ''}`, g.a - g.left - 40) as t, i (i)}
      <text class="sl" x={x + 4} y={s.y(o.release) + 28 + 16 * i}>{t}</text>
    {/each}
  {/if}
{/if}

<style>
  text {
    fill: var(--ink);
    font: var(--w-normal) 12.5px var(--text);
  }
  .sl {
    fill: var(--ink2);
  }
  .sn {
    fill: var(--ink3);
    font-size: 11.5px;
  }
  .sd {
    font: var(--w-normal) 12px var(--figs);
    fill: var(--ink2);
  }
  .hd {
    font-size: 14px;
    font-weight: var(--w-strong);
  }
  .wt {
    font-weight: var(--w-strong);
  }
  .halo {
    paint-order: stroke;
    stroke: var(--paper);
    stroke-width: 3px;
  }
  .co {
    fill: var(--conflict);
  }
  .on {
    fill: var(--ink);
  }
  .tail {
    fill: var(--buff);
    stroke: var(--ink);
  }
  .sq {
    fill: var(--paper);
    stroke: var(--ink);
  }
  .dec {
    stroke: var(--ink);
    stroke-width: 5;
    stroke-dasharray: 4 2;
  }
  .go {
    stroke: var(--ink);
    fill: none;
  }
  .gh {
    fill: var(--ink);
  }
  .edge {
    fill: none;
    stroke: var(--bold);
  }
  .break {
    fill: none;
    stroke: var(--ink2);
  }
  .mark {
    stroke: var(--bold);
    stroke-width: 1.4;
  }
  .deaf {
    fill: var(--water);
    stroke: var(--rule2);
    stroke-dasharray: 2 2;
  }
</style>
