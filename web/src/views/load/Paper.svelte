<script lang="ts">
  /** What is carried to a radio on paper, or in a phone without a network. */
  let { load }: { load: number } = $props();
  const size = navigator.language === 'en-US' ? 'letter' : 'a4';
  const kinds = [
    { kind: 'field', says: 'field sheet' },
    { kind: 'pocket', says: 'pocket card' },
    { kind: 'cards', says: 'one card a channel' },
    { kind: 'sheets', says: 'all keypad sheets' },
  ];
  let paper = $state(size);
  const at = (kind: string, as: string) => `/api/loads/${String(load)}/paper?kind=${kind}&size=${paper}&as=${as}`;
</script>

<ul>
  {#each kinds as k (k.kind)}
    <li>
      <a class="link" href={at(k.kind, 'view')} target="_blank" rel="noopener">{k.says}</a>
      <a class="link" href={at(k.kind, 'pdf')} download aria-label="{k.says} as PDF">PDF</a>
    </li>
  {/each}
  <li><a class="link" href={at('phone', 'html')} download>file for a phone without a network</a></li>
</ul>
<p class="size">
  {#each [{ v: 'a4', says: 'A4' }, { v: 'letter', says: 'Letter' }] as x (x.v)}
    <label><input type="radio" name="paper" value={x.v} bind:group={paper} /> {x.says}</label>
  {/each}
</p>

<style>
  ul {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 18px;
    margin-top: 4px;
    font-size: 13.5px;
  }
  li {
    display: inline-flex;
    gap: 8px;
    align-items: baseline;
  }
  .size {
    display: flex;
    gap: 16px;
    margin-top: 4px;
    font-size: var(--t-small);
  }
  label {
    display: inline-flex;
    gap: 6px;
  }
  @media (max-width: 45em) {
    a,
    label {
      display: inline-flex;
      align-items: center;
      min-height: 44px;
    }
  }
</style>
