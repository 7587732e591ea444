<script lang="ts">
  import type { BeaconState, Frame, Part } from './beacon.svelte';
  import { full, words } from './draw';

  /** The very frame: its letters, its bytes, and its time; each field is one in all three. */
  interface Props {
    b: BeaconState;
    frame: Frame;
    phone: boolean;
  }
  let { b, frame, phone }: Props = $props();
  let width = $state(0);
  const line = $derived(words(frame, Math.max(200, width - 40), phone ? 15 : 24));
  const most = $derived(full(frame.total));
  const x = (ms: number) => (ms / most) * width;
  const top = $derived(line.size + 34);
  const bytesAt = $derived(top + 44);
  const scale = $derived(bytesAt + 26);
  /** Letters of bytes only where a column is wide enough. */
  const tight = $derived((8 / 1.2 / most) * width < 7.6);
  const bytes = $derived(
    frame.parts.flatMap((p) =>
      p.bytes.map((v, i) => ({ v, p, x: x(p.from + ((i + 0.5) * (p.to - p.from)) / p.bytes.length) })),
    ),
  );
  /** Where the time is drawn. */
  const y = $derived(phone ? 18 : scale);
  const hex = (v: number) => v.toString(16).toUpperCase().padStart(2, '0');
  const ms = (p: Part) => (p.to - p.from).toFixed(1);
  const hot = (p: Part) => p.id === b.at;
  const now = $derived(frame.parts.find((p) => p.id === b.at));
  const label = $derived(
    `${frame.parts
      .filter((p) => p.text)
      .map((p) => `${p.name}: ${p.text}, ${ms(p)} milliseconds`)
      .join(
        '; ',
      )}. ${String(frame.bytes)} bytes, ${frame.total.toFixed(1)} milliseconds in all, of which key-up delay ${frame.key_up.toFixed(0)}.`,
  );
</script>

<div class="frame" bind:clientWidth={width}>
  {#if width > 0 && !frame.error}
    {#if phone}
      <p class="letters">
        {#each line.words as w (w.part.id)}<button
            type="button"
            class:hot={hot(w.part)}
            onclick={() => (b.at = w.part.id)}><b>{w.text}</b><em>{w.part.name}</em></button
          >{/each}
      </p>
    {/if}
    <svg {width} height={phone ? 64 : scale + 46} role="img" aria-label={label}>
      {#if !phone}
        {#each line.words as w (w.part.id)}
          {@const mid = 40 + w.x + w.w / 2}
          <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
          <g
            class="word"
            class:hot={hot(w.part)}
            onclick={() => (b.at = w.part.id)}
            onpointerenter={() => (b.at = w.part.id)}
          >
            <rect class="hit" x={40 + w.x} y="0" width={w.w} height={top} />
            <text class="letter" x={40 + w.x} y={line.size} style:font-size="{line.size}px" textLength={w.w}
              >{w.text}</text
            >
            <path class="bracket" d="M{41 + w.x},{line.size + 6}v5h{Math.max(0, w.w - 2)}v-5" />
            {#if w.w > w.part.name.length * 6}<text class="name" x={mid} y={line.size + 25} text-anchor="middle"
                >{w.part.name}</text
              >{/if}
            <path
              class="leader"
              d="M{40 + w.x},{top - 4}L{x(w.part.from)},{bytesAt - 14}M{40 + w.x + w.w},{top - 4}L{x(
                w.part.to,
              )},{bytesAt - 14}"
            />
            {#if hot(w.part)}<path
                class="band"
                d="M{40 + w.x},{line.size + 12}V{top - 4}L{x(w.part.from)},{bytesAt - 14}V{scale + 18}H{x(
                  w.part.to,
                )}V{bytesAt - 14}L{40 + w.x + w.w},{top - 4}V{line.size + 12}Z"
              />{/if}
          </g>
        {/each}
        {#if !tight}{#each bytes as c, i (i)}
            <text
              class="byte"
              class:hot={hot(c.p)}
              class:quiet={c.p.text === ''}
              x={c.x}
              y={bytesAt - 2}
              text-anchor="middle">{hex(c.v)[0]}</text
            ><text
              class="byte"
              class:hot={hot(c.p)}
              class:quiet={c.p.text === ''}
              x={c.x}
              y={bytesAt + 9}
              text-anchor="middle">{hex(c.v)[1]}</text
            >
          {/each}{/if}
        <text class="note" x={x(frame.key_up) - 10} y={bytesAt} text-anchor="end"
          >{frame.flags} flags while the radio comes up to power</text
        >
        <text class="note" x={x(frame.total) + 8} y={bytesAt}>{frame.bytes} bytes</text>
      {/if}
      <rect class="keyup" x=".5" {y} width={x(frame.key_up)} height="18" />
      <text class="ms" x={x(frame.key_up / 2)} y={y + 13} text-anchor="middle"
        >{phone ? '' : 'key-up delay '}{frame.key_up.toFixed(0)} ms</text
      >
      {#each frame.parts as p (p.id)}
        <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
        <g class:hot={hot(p)} onclick={() => (b.at = p.id)}>
          <rect class="seg" x={x(p.from)} {y} width={Math.max(0, x(p.to) - x(p.from))} height="18" />
          {#if x(p.to) - x(p.from) > 34}<text class="ms" x={x((p.from + p.to) / 2)} y={y + 13} text-anchor="middle"
              >{ms(p)}</text
            >{/if}
        </g>
      {/each}
      <path class="end" d="M{x(frame.total)},{y - 6}V{y + 22}" />
      <text class="total" x={Math.min(x(frame.total) + 6, width - 62)} y={y + 14}
        >{phone ? '' : frame.total.toFixed(1)}{phone ? '' : ' ms'}</text
      >
      {#each Array.from({ length: most / 100 + 1 }, (_, i) => i * 100).filter((m) => !phone || m % 300 === 0) as m (m)}
        <path class="tick" d="M{x(m)},{y + 18}v5" /><text
          class="scale"
          x={x(m)}
          y={y + 35}
          text-anchor={m === 0 ? 'start' : m === most ? 'end' : 'middle'}>{m}{m === most ? ' ms' : ''}</text
        >
      {/each}
    </svg>
    <p class="say" aria-live="polite">
      {#if now}<b>{now.name}</b>, {now.bytes.length === 1 ? '1 byte' : `${String(now.bytes.length)} bytes`}, {ms(now)} ms{now.stuffed
          ? ` with ${String(now.stuffed)} stuffed ${now.stuffed === 1 ? 'bit' : 'bits'}`
          : ''}: {now.says || 'as you wrote it'}.
      {:else}<b>{frame.total.toFixed(1)} ms</b> on the air: {frame.bytes} bytes, {frame.stuffed === 1
          ? '1 stuffed bit'
          : `${String(frame.stuffed)} stuffed bits`}, {frame.key_up.toFixed(0)} ms of key-up delay. Point at a field, or move
        with the arrows.{/if}
    </p>
  {/if}
</div>

<style>
  .frame {
    min-width: 0;
  }
  svg {
    display: block;
    overflow: visible;
  }
  text {
    font: var(--w-normal) 11.5px var(--text);
    fill: var(--ink2);
  }
  .letter {
    font-family: var(--figs);
    fill: var(--ink);
    white-space: pre;
  }
  .hit {
    fill: transparent;
  }
  .bracket,
  .leader {
    fill: none;
    stroke: var(--rule2);
  }
  .bracket {
    stroke: var(--ink2);
  }
  .band {
    fill: var(--accent);
    opacity: 0.12;
  }
  .hot .letter,
  .hot .name,
  .hot .ms,
  .byte.hot {
    fill: var(--accent);
    font-weight: var(--w-strong);
  }
  .hot .bracket {
    stroke: var(--accent);
    stroke-width: 2;
  }
  .byte {
    font: var(--w-normal) 11px var(--figs);
    fill: var(--ink);
  }
  .byte.quiet {
    fill: var(--ink3);
  }
  .keyup {
    fill: var(--water);
    stroke: var(--rule2);
    stroke-dasharray: 3 2;
  }
  .seg {
    fill: var(--sheet);
    stroke: var(--ink2);
  }
  .hot .seg {
    stroke: var(--accent);
    stroke-width: 2;
  }
  .ms,
  .scale,
  .total {
    font-family: var(--figs);
    font-size: 12px;
  }
  .total {
    font-weight: var(--w-strong);
    fill: var(--ink);
  }
  .end {
    stroke: var(--ink);
    stroke-width: 2;
  }
  .tick {
    stroke: var(--rule2);
  }
  .say {
    padding: 4px 0 6px 40px;
    min-height: 28px;
  }
  .say b {
    font-weight: var(--w-strong);
  }
  .letters {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 8px;
  }
  .letters button {
    display: inline-flex;
    flex-direction: column;
    align-items: center;
    min-height: 44px;
    min-width: 24px;
  }
  .letters b {
    font: var(--w-normal) 15px var(--figs);
    border-bottom: 1px solid var(--ink2);
    white-space: pre;
  }
  .letters em {
    font-style: normal;
    font-size: 11.5px;
    color: var(--ink2);
  }
  .letters .hot b {
    color: var(--accent);
    border-color: var(--accent);
  }
  @media (max-width: 45em) {
    .say {
      padding-left: 0;
    }
  }
</style>
