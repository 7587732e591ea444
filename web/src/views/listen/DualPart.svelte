<script lang="ts">
  import { untrack } from 'svelte';
  import Frequency from '$parts/Frequency.svelte';
  import Select from '$parts/Select.svelte';
  import type { ListenReport } from '$lib/api/client';

  /** Which side would send while the other one is heard. */
  interface Props {
    r: ListenReport;
    modes: () => void;
    watch: (slot: number) => void;
    lock: (slot: number) => void;
  }
  let { r, modes, watch, lock }: Props = $props();
  let other = $state('-1');
  $effect(() => {
    const now = String(r.watch);
    untrack(() => (other = now));
  });
  const [A, B] = [30, 50];
  const both = $derived(r.receivers === 'dual receive');
  /** The receiver goes from side to side until it hears something. */
  const hop = (side: string) => {
    if (both) return '';
    let at = side === 'A' ? 0 : 1;
    let out = '';
    for (let k = 0; k < 5; k++, at++) out += `${k ? 'V' : 'M18,'}${String([A, B][at % 2])}h9`;
    return out;
  };
</script>

<div class="flex items-baseline gap-3">
  <h2>
    {both ? 'Two receivers' : 'Dual watch'} <span>{r.dual.says}</span>
  </h2>
  <button type="button" class="link ml-auto whitespace-nowrap" onclick={modes}>going on</button>
</div>
{#if r.receivers !== 'one'}
  <p class="pick">
    <label for="other-side">on the other side</label>
    <span class="w-[220px]"
      ><Select
        id="other-side"
        label="On the other side"
        bind:value={other}
        options={[
          { value: '-1', label: 'nothing' },
          ...r.rows.map((x) => ({ value: String(x.slot), label: `${String(x.slot)} ${x.name}` })),
        ]}
        changed={() => {
          watch(Number(other));
        }}
      /></span
    >
  </p>
{/if}
{#if r.dual.cases.length > 0}
  <div class="cases">
    {#each r.dual.cases as c (c.side)}
      {@const hear = c.side === 'A' ? B : A}
      {@const send = c.side === 'A' ? A : B}
      <div>
        <svg width="186" height="72" viewBox="0 0 186 72" aria-hidden="true">
          <text class="t" x="0" y="11">{c.side}, {c.slot} {c.name.slice(0, 16)} selected</text>
          {#each [['A', A], ['B', B]] as const as [l, y] (l)}
            <text class="m" class:b={l === c.side} x="0" y={y + 4}>{l}</text><path class="staff" d="M14,{y}H186" />
          {/each}
          <rect class="o" x="56.5" y={hear - 4.5} width="61" height="9" /><rect
            class="h"
            x="64"
            y={hear - 5}
            width="54"
            height="10"
          />
          {#if both}<path class="hop" d="M18,{hear}H130" />{:else}<path class="hop" d="{hop(c.side)}V{hear}H130" />{/if}
          <path class="cut" d="M136,22V58" /><text x="136" y="68" text-anchor="middle">key</text>
          {#if c.bad !== ''}
            <path class="bad" d="M136,{send}H170" /><path class="badmark" d="M173,{send - 5}h10v10h-10z" />
          {:else if c.sends_hz !== undefined}
            <path class="hop" stroke-width="2" d="M136,{send}H178" /><path
              class="h"
              d="M177,{send - 4.5}L186,{send}L177,{send + 4.5}Z"
            />
          {/if}
        </svg>
        <p class:text-stop={c.bad !== ''} class:font-strong={c.bad !== ''}>
          hears <Frequency hz={c.hears_hz} />; {#if c.sends_hz !== undefined}sends <Frequency
              hz={c.sends_hz}
            />{:else}sends nothing{/if}{#if c.bad !== ''}: {c.bad}
            {#if c.lockable}<button
                type="button"
                class="link font-normal"
                onclick={() => {
                  lock(c.slot);
                }}>lock {c.side}</button
              >{/if}{/if}
        </p>
      </div>
    {/each}
  </div>
{:else if r.dual.asks}
  <p class="note">
    Choose what is on the other side, and this shows which of the two would send while you hear the other. Keep the
    transmitter locked where you may only listen; follow your local rules and your licence.
  </p>
{/if}

<style>
  h2 {
    font-size: 15px;
    line-height: 20px;
    font-weight: var(--w-strong);
  }
  h2 span,
  p {
    font-weight: var(--w-normal);
    font-size: 13px;
    color: var(--ink2);
  }
  h2 span {
    margin-left: 6px;
  }
  p.text-stop {
    color: var(--stop);
    font-weight: var(--w-strong);
  }
  .pick {
    display: flex;
    gap: 8px;
    align-items: center;
  }
  .cases {
    display: flex;
    flex-wrap: wrap;
    justify-content: space-between;
    gap: 4px 20px;
    margin-top: 2px;
  }
  .cases > div {
    width: 190px;
  }
  svg {
    display: block;
    overflow: visible;
  }
  text {
    font: var(--w-normal) 11.5px var(--text);
    fill: var(--ink2);
  }
  .t {
    font-weight: var(--w-strong);
    fill: var(--ink);
    font-size: 12.5px;
  }
  .m {
    font-family: var(--figs);
  }
  .b {
    font-weight: var(--w-strong);
    fill: var(--ink);
  }
  .staff {
    stroke: var(--rule);
  }
  .o {
    fill: var(--paper);
    stroke: var(--ink2);
  }
  .h {
    fill: var(--ink);
  }
  .hop {
    fill: none;
    stroke: var(--ink);
  }
  .cut {
    stroke: var(--ink2);
    stroke-dasharray: 1 3;
  }
  .bad {
    stroke: var(--stop);
    stroke-width: 2;
    stroke-dasharray: 3 3;
  }
  .badmark {
    fill: var(--stop);
  }
  @media (max-width: 45em) {
    p .link,
    .link {
      min-height: 44px;
    }
  }
</style>
