<script lang="ts">
  import type { LogBook } from '$lib/api/client';
  import { figures, toneText, when } from '$lib/format';

  /** The log on paper: every line, oldest first. It is seen in print alone. */
  let { book, plan, unit }: { book: LogBook; plan: string; unit: string } = $props();
  const mhz = (hz: number) => {
    const x = figures(hz);
    return hz === 0 ? '' : `${x.mhz}.${x.khz}${x.rest}`;
  };
</script>

<section class="sheet" aria-hidden="true">
  <h1>Log · {plan} · {unit}</h1>
  <p>{book.answered} answered, {book.silent} silent. Times are local.</p>
  <table>
    <thead
      ><tr
        ><th>time</th><th>slot</th><th>name</th><th>receive</th><th>tone out</th><th>came back</th><th>where</th><th
          >with</th
        ><th>note</th></tr
      ></thead
    >
    <tbody>
      {#each book.tries.toReversed() as t (t.id)}
        <tr>
          <td>{when(t.at)}</td><td>{t.slot || ''}</td><td>{t.name}</td><td>{mhz(t.receive_hz)}</td><td
            >{t.kind !== 'key'
              ? ''
              : t.setting.tone === 'off' || t.setting.tone === 'none'
                ? 'none'
                : toneText(t.setting.tone)}</td
          ><td>{t.says}</td><td>{[t.spot, t.setting.where].filter((x) => x).join(', ')}</td><td
            >{[t.watts ? `${String(t.watts)} W` : '', t.setting.aerial].filter((x) => x).join(', ')}</td
          ><td>{t.note}</td>
        </tr>
      {/each}
    </tbody>
  </table>
</section>

<style>
  .sheet {
    display: none;
  }
  @media print {
    .sheet {
      display: block;
      color: #000;
      font-size: 9pt;
    }
    h1 {
      font-size: 13pt;
      font-weight: var(--w-strong);
    }
    table {
      width: 100%;
      border-collapse: collapse;
      margin-top: 4mm;
    }
    th {
      text-align: left;
      font-weight: var(--w-strong);
      border-bottom: 1pt solid #000;
    }
    td {
      vertical-align: top;
      border-bottom: 0.4pt solid #999;
      padding: 1mm 2mm 1mm 0;
    }
    tr {
      break-inside: avoid;
    }
  }
</style>
