<script lang="ts">
  import { bars, sec, type Ground, type Loop, type Scale } from './draw';

  /** Two repeaters after one short call: how each tail keys the other. */
  let { l, g, s }: { l: Loop; g: Ground; s: Scale } = $props();
  const list = $derived(bars(l.sent, g, s, l.call));
  const turns = $derived(
    l.does
      ? [0, 1].map((i) => ({ from: s.y(l.call + i * l.period), to: s.y(l.call + (i + 1) * l.period), n: i + 1 }))
      : [],
  );
</script>

<text class="hd" x={g.phone ? 0 : g.left + 16} y={g.time + 21}>After one call of {sec(l.call, 0)} s</text>
{#if !g.phone}<text class="sn" x="0" y={g.time + 21}>seconds</text>{/if}
<rect class="on" x={g.phone ? g.width - 130 : g.b + 16} y={g.time + 11} width="9" height="11" />
<text class="sl" x={(g.phone ? g.width - 130 : g.b + 16) + 14} y={g.time + 21}>speech</text>
<rect class="tail" x={g.phone ? g.width - 66 : g.b + 88} y={g.time + 11} width="9" height="11" />
<text class="sl" x={(g.phone ? g.width - 66 : g.b + 88) + 14} y={g.time + 21}>carrier</text>
<rect class="edge" x={g.phone ? 22 : 30} y={s.y(0)} width="4" height={s.foot - s.y(0)} />
{#each s.ticks as t, i (i)}<text class="sd" x={g.phone ? 18 : 25} y={t.y + 4} text-anchor="end">{t.says}</text><path
    class="edge"
    d="M{g.phone ? 20 : 28},{t.y}h6"
  />{/each}
{#each list as b, i (i)}<rect class={b.speech ? 'on' : 'tail'} x={b.x - 4.5} y={b.y} width="9" height={b.h} />{/each}
<path class="mark" d="M{g.phone ? 26 : 34},{s.y(l.call)}H{g.width}" />
<text class="wt" x={(g.phone ? g.left : g.left) + 16} y={s.y(l.call) + 16}>From here nobody speaks.</text>
{#if l.does}
  {#each turns as t (t.n)}
    <path class="turn" d="M{g.right + 18},{t.from + 2}h-5V{t.to - 2}h5" />
    {#if !g.phone}<text class="sl" x={g.right + 24} y={(t.from + t.to) / 2}>a turn</text><text
        class="sl"
        x={g.right + 24}
        y={(t.from + t.to) / 2 + 16}>{sec(l.period, 1)} s</text
      >{/if}
  {/each}
  <text class="wt stop" x={g.phone ? g.left + 16 : g.right + 24} y={s.foot - 4}>and so on</text>
{:else}
  <text class="wt" x={g.left + 16} y={s.foot - 4}>Silent {sec(l.quiet, 1)} s after the call.</text>
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
  .stop {
    fill: var(--stop);
  }
  .on {
    fill: var(--ink);
  }
  .tail {
    fill: var(--buff);
    stroke: var(--ink);
  }
  .edge {
    fill: none;
    stroke: var(--bold);
  }
  .mark {
    stroke: var(--bold);
    stroke-width: 1.4;
  }
  .turn {
    fill: none;
    stroke: var(--stop);
  }
</style>
