<script lang="ts">
  import type { RelayView } from '$lib/api/client';
  import { toneText } from '$lib/format';

  /** One side as it is written, and what it is taken for. */
  interface Props {
    letter: 'A' | 'B';
    side: RelayView['a'] | undefined;
    value: string;
    type: (text: string) => void;
    keep: () => void;
    input?: HTMLInputElement | undefined;
  }
  let { letter, side, value, type, keep, input = $bindable() }: Props = $props();
  const gloss = $derived.by(() => {
    const c = side?.channel;
    if (!side || !c) return '';
    const shift = (c.transmit_hz ?? c.receive_hz) - c.receive_hz;
    const out = c.transmit_tone && c.transmit_tone !== 'none' ? c.transmit_tone : '';
    const back = c.receive_tone && c.receive_tone !== 'none' ? c.receive_tone : '';
    return [
      side.from || (side.vehicle_slot >= 0 ? `slot ${String(side.vehicle_slot)}` : ''),
      c.transmit_hz === null ? 'receives only' : shift === 0 ? 'simplex' : 'repeater',
      out && out === back
        ? `${toneText(out)} both ways`
        : out
          ? `sends ${toneText(out)}${back ? `, waits for ${toneText(back)}` : ', opens to anything'}`
          : back
            ? `no tone out, waits for ${toneText(back)}`
            : 'no tone',
      `${String(side.watts)} W`,
    ]
      .filter((x) => x)
      .join(', ');
  });
</script>

<div class="side" class:wrong={side?.trouble}>
  <label for="side-{letter}"><span class="sr-only">Side </span>{letter}</label>
  <div class="min-w-0 flex-1">
    <input
      id="side-{letter}"
      bind:this={input}
      {value}
      spellcheck="false"
      autocomplete="off"
      placeholder={letter === 'A' ? 'the link: 446.1 ts 186.2, or a slot' : 'the repeater: 145.29 - 110.9'}
      aria-describedby="gloss-{letter}"
      aria-invalid={!!side?.trouble}
      oninput={(e) => {
        type(e.currentTarget.value);
      }}
      onkeydown={(e) => {
        if (e.key === 'Enter') keep();
      }}
    />
    <p id="gloss-{letter}" class:text-stop={side?.trouble}>{side?.trouble || gloss}</p>
  </div>
</div>

<style>
  .side {
    display: flex;
    flex: 1;
    min-width: 0;
    min-height: 62px;
    padding: 0 10px;
    border-left: 4px solid var(--rule2);
  }
  .side:focus-within {
    border-left-color: var(--accent);
  }
  .wrong {
    border-left-color: var(--stop);
  }
  label {
    width: 30px;
    flex: none;
    font: var(--w-strong) 20px/46px var(--figs);
    color: var(--accent);
  }
  input {
    width: 100%;
    height: 40px;
    background: none;
    font: var(--w-normal) 18px var(--figs);
    text-overflow: ellipsis;
  }
  input::placeholder {
    font-size: 14px;
    color: var(--ink3);
  }
  input:focus {
    outline: none;
    box-shadow: inset 0 -2px 0 var(--accent);
  }
  p {
    font-size: var(--t-label);
    color: var(--ink2);
    line-height: 1.25;
    padding-bottom: 4px;
  }
  @media (max-width: 45em) {
    .side {
      padding: 0 var(--margin);
      border-bottom: 1px solid var(--rule);
    }
    input {
      height: 44px;
    }
  }
</style>
