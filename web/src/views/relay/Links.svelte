<script lang="ts">
  import Frequency from '$parts/Frequency.svelte';
  import type { Report } from './relay.svelte';

  /** Frequencies for the link, best first, with how clear each is. */
  let { links, take }: { links: Report['links']; take: (line: string) => void } = $props();
  const away = (hz: number) => (hz >= 1_000_000 ? `${(hz / 1_000_000).toFixed(1)} MHz` : `${String(hz / 1000)} kHz`);
  const calling = $derived(links[0]?.calling_at_hz ?? 0);
</script>

{#if links.length > 0}
  <section aria-label="Frequencies for the link">
    <h3>For the link, best first</h3>
    <table>
      <thead>
        <tr>
          <th scope="col"><span class="sr-only">frequency</span></th>
          <th scope="col">band plan</th>
          <th scope="col" class="r"
            >to calling{#if calling}<small>{calling / 1e6}</small>{/if}</th
          >
          <th scope="col" class="r">to products<small>in the car</small></th>
          <th scope="col" class="r">to listed<small>nearest</small></th>
        </tr>
      </thead>
      <tbody>
        {#each links as l, nth (nth)}
          <tr class:now={l.now}>
            <td
              >{#if l.now}<Frequency hz={l.hz} />{:else}<button
                  type="button"
                  title="Move both ends there"
                  onclick={() => {
                    take(l.line);
                  }}><Frequency hz={l.hz} /></button
                >{/if}</td
            >
            <td>{l.now ? 'yours now' : l.ask ? `${l.label}, ask first` : l.label}</td>
            <td class="r" class:bad={l.calling_at_hz > 0 && l.calling_hz < 16000}
              >{l.calling_at_hz > 0 ? away(l.calling_hz) : '–'}</td
            >
            <td class="r" class:bad={l.product_hz < 16000} title={l.product}>{away(l.product_hz)}</td>
            <td class="r" class:bad={l.listed_at_hz > 0 && l.listed_hz < 16000}
              >{l.listed_at_hz > 0 ? away(l.listed_hz) : 'nothing'}</td
            >
          </tr>
        {/each}
      </tbody>
    </table>
  </section>
{/if}

<style>
  h3 {
    font-size: 15px;
    font-weight: var(--w-strong);
    padding-top: 8px;
  }
  table {
    width: 100%;
    border-collapse: collapse;
  }
  th {
    font-size: var(--t-label);
    font-weight: var(--w-normal);
    color: var(--ink2);
    text-align: left;
    vertical-align: top;
    border-bottom: 1px solid var(--bold);
    line-height: 1.2;
    padding: 2px 0 3px;
  }
  th small {
    display: block;
    color: var(--ink3);
    font-size: var(--t-note);
  }
  td {
    border-bottom: 1px solid var(--rule);
    height: 24px;
    font-size: 13px;
    white-space: nowrap;
  }
  .r {
    text-align: right;
    padding-left: 8px;
  }
  .bad {
    color: var(--conflict);
    font-weight: var(--w-strong);
  }
  .now td {
    color: var(--ink2);
  }
  td button {
    min-height: 24px;
    text-decoration: underline;
    text-decoration-color: var(--accent);
    text-underline-offset: 3px;
  }
  td button:hover {
    background: var(--hover);
  }
  @media (max-width: 45em) {
    td {
      height: 44px;
      font-size: 12.5px;
      white-space: normal;
    }
    td button {
      min-height: 44px;
    }
  }
</style>
