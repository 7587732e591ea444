<script lang="ts">
  import Button from '$parts/Button.svelte';
  import type { ListenReport } from '$lib/api/client';
  import { round, seconds, ten } from './words';

  /** What each way of going on makes of this list. */
  interface Props {
    r: ListenReport;
    dual: () => void;
    take: (resume: string, stay: number) => void;
  }
  let { r, dual, take }: Props = $props();
</script>

<div class="flex items-baseline gap-3">
  <h2>How the scan goes on</h2>
  <button type="button" class="link ml-auto" onclick={dual}>the two sides</button>
</div>
<table>
  <thead
    ><tr
      ><th>goes on by</th><th class="r">round</th><th class="r">{r.goal.name || 'goal'}</th><th class="r"
        >heard an hour</th
      ><th><span class="sr-only">take it</span></th></tr
    ></thead
  >
  <tbody>
    {#each r.modes as m, i (i)}
      <tr class:now={m.now}>
        <td><b>{m.resume}</b> <span>{m.says}</span></td>
        <td class="r f">{m.round === undefined ? '–' : seconds(m.round)}</td>
        <td class="r f">{ten(m.chance)}</td>
        <td class="r f">{round(m.heard)}</td>
        <td class="r"
          >{#if m.now}as it is{:else}<Button
              onclick={() => {
                take(m.resume, m.stay);
              }}>Set</Button
            >{/if}</td
        >
      </tr>
    {/each}
  </tbody>
</table>

<style>
  h2 {
    font-size: 15px;
    line-height: 20px;
    font-weight: var(--w-strong);
  }
  table {
    width: 100%;
    font-size: 13px;
    border-collapse: collapse;
  }
  th {
    font-weight: var(--w-normal);
    font-size: var(--t-label);
    color: var(--ink2);
    text-align: left;
    white-space: nowrap;
    padding-right: 8px;
  }
  td {
    border-top: 1px solid var(--rule);
    padding: 3px 8px 3px 0;
    vertical-align: baseline;
  }
  td span {
    color: var(--ink2);
    line-height: 1.25;
  }
  b {
    font-weight: var(--w-medium);
  }
  .now b {
    font-weight: var(--w-strong);
  }
  th.r,
  .r {
    text-align: right;
  }
  .f {
    font-family: var(--figs);
    white-space: nowrap;
  }
</style>
