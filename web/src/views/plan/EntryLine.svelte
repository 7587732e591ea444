<script lang="ts">
  import LineGround from '$parts/LineGround.svelte';
  import PaintedLine, { type PaintedWord } from '$parts/PaintedLine.svelte';
  import type { Word } from '$lib/api/client';
  import { commands } from '$session/commands.svelte';
  import type { PlanState } from './plan.svelte';
  import StoreButton from './StoreButton.svelte';

  interface Props {
    plan: PlanState;
    nextSlot: number | null;
    input?: HTMLInputElement;
    store: (replace: boolean) => void;
  }
  let { plan, nextSlot, input = $bindable(), store }: Props = $props();

  const reading = $derived(plan.reading);
  const words = $derived<Word[]>(reading && plan.line ? reading.words : []);
  const slot = $derived(reading?.slot ?? plan.place ?? nextSlot);
  /** The fields that a grave finding speaks of. */
  const doubted = $derived(
    new Set(reading?.findings.filter((f) => f.severity === 'stop' || f.severity === 'fix').map((f) => f.field)),
  );
  const fieldOf: Record<string, string[]> = {
    receive: ['receive'],
    transmit: ['transmit', 'shift'],
    shift: ['shift'],
    simplex: ['shift'],
    tone: ['transmit_tone'],
    tones: ['transmit_tone', 'receive_tone'],
    'tone squelch': ['transmit_tone', 'receive_tone'],
    'receive tone': ['receive_tone'],
    'receive and transmit': ['receive', 'transmit', 'shift'],
    band: ['receive'],
    callsign: ['name'],
    slot: ['slot'],
    name: ['name'],
  };
  const doubt = (w: Word) => w.problem !== undefined || (fieldOf[w.as] ?? []).some((f) => doubted.has(f));

  const gloss = (w: Word) => {
    if (w.problem !== undefined) return w.as === 'unknown' ? '?' : w.as;
    return w.guess ?? w.as;
  };
  const painted = $derived(
    words.map((w): PaintedWord => ({
      start: w.start,
      end: w.end,
      as: w.as === 'joins' ? '' : gloss(w),
      guess: w.guess !== undefined,
      doubt: doubt(w),
      strong: w.as === 'receive' || w.as === 'shift',
    })),
  );
</script>

<LineGround number={String(slot ?? '–')}>
  <label class="sr-only" for="entry">Channel for slot {slot ?? 'none'}: type what the listing says</label>
  <PaintedLine
    id="entry"
    bind:input
    value={plan.line}
    words={painted}
    such="such as 146.94 -600 88.5 Marran"
    typed={(text) => {
      plan.type(text);
    }}
    onkeydown={(e) => {
      commands.act('On the line', e);
    }}
    onpaste={(e) => {
      const text = e.clipboardData?.getData('text') ?? '';
      if (!/[\r\n]/.test(text.trim())) return;
      e.preventDefault();
      void plan.paste(text);
    }}
    maxlength={400}
    aria-describedby="say gloss"
  />
  {#if reading && plan.line}
    <span class="mt-4 ml-3 flex-none max-desk:hidden"><StoreButton {reading} {store} /></span>
  {/if}
</LineGround>
<p id="gloss" class="sr-only">
  {words.map((w) => `${w.text} taken as ${w.as}${w.problem ? `: ${w.problem}` : ''}`).join(', ')}
</p>
