<script lang="ts">
  /** What a step says to press: the keys as caps, the words as they are. */
  let { text }: { text: string } = $props();

  const cap = '[A-Z0-9*#▲▼][A-Z0-9*#./▲▼-]*';
  const caps = new RegExp(`\\b(?:press|hold|turn|with|or|and) (?:${cap}(?= |,|$) ?)+`, 'g');
  interface Piece {
    text: string;
    key: boolean;
  }
  const pieces = $derived.by(() => {
    const out: Piece[] = [];
    let from = 0;
    for (const m of text.matchAll(caps)) {
      const verb = m[0].indexOf(' ') + 1;
      out.push({ text: text.slice(from, m.index + verb), key: false });
      for (const part of m[0].slice(verb).split(/( )/)) if (part) out.push({ text: part, key: part !== ' ' });
      from = m.index + m[0].length;
    }
    out.push({ text: text.slice(from), key: false });
    return out;
  });
</script>

<!-- prettier-ignore -->
<span>{#each pieces as p, i (i)}{#if p.key}<kbd>{p.text}</kbd>{:else}{p.text}{/if}{/each}</span>

<style>
  kbd {
    display: inline-block;
    min-width: 18px;
    padding: 0 4px;
    border: 1px solid var(--rule2);
    border-radius: 2px;
    background: var(--sheet);
    color: var(--ink);
    font-family: var(--figs);
    font-size: 13px;
    line-height: 19px;
    text-align: center;
  }
  @media print {
    kbd {
      padding: 0 3px;
      font-size: 11px;
      line-height: 15px;
    }
  }
</style>
