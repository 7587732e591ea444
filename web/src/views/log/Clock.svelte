<script lang="ts">
  import { left } from './time';

  /** When the callsign is due again; the last minute warns. */
  let { first, minutes, source, time }: { first: string; minutes: number; source: string; time: number } = $props();
  const s = $derived(left(first, minutes, time));
  const due = $derived(
    first
      ? new Date(Date.parse(first) + minutes * 60_000).toLocaleTimeString('en-GB', {
          hour: '2-digit',
          minute: '2-digit',
        })
      : '',
  );
  const warns = $derived(s !== undefined && s <= 60);
</script>

{#if minutes > 0}
  {#if s === undefined}<p class="idle" title={source}>
      Your callsign at the end too, and every {minutes} minutes while it goes on.
    </p>
  {:else}
    <div class="clock" class:warns title={source}>
      <div class="bar" aria-hidden="true">
        <i style:width="{(100 * s) / (minutes * 60)}%"></i><u style:width="{100 / minutes}%"></u>
      </div>
      <p>
        callsign again by <b>{due}</b><span class="ml-auto"
          ><b>{Math.floor(s / 60)}</b> min <b>{String(Math.floor(s % 60)).padStart(2, '0')}</b> s left</span
        >
      </p>
    </div>
  {/if}
  <p class="sr-only" role="status">{warns ? `Say your callsign within a minute, by ${due}` : ''}</p>
{/if}

<style>
  .idle {
    padding-left: 40px;
    color: var(--ink2);
    font-size: 13px;
  }
  .clock {
    padding: 2px 0 4px;
  }
  .bar {
    position: relative;
    height: 9px;
    border-top: 1px solid var(--rule2);
    margin-top: 4px;
  }
  .bar i {
    position: absolute;
    left: 0;
    top: -2px;
    height: 3px;
    background: var(--ink);
  }
  .bar u {
    position: absolute;
    left: 0;
    top: -4px;
    height: 7px;
    border-right: 1px solid var(--ink2);
  }
  .clock p {
    display: flex;
    font-size: 13px;
    color: var(--ink2);
  }
  .clock b {
    font: var(--w-strong) 13px var(--figs);
    color: var(--ink);
    margin: 0 3px;
  }
  .warns p,
  .warns b {
    color: var(--stop);
    font-weight: var(--w-strong);
  }
  .warns i {
    background: var(--stop);
  }
  @media (max-width: 45em) {
    .idle {
      padding-left: 0;
    }
  }
</style>
