<script lang="ts">
  import { tone } from '$lib/format';

  interface Props {
    text: string;
    /** In question: strong and in the colour of a conflict. */
    hot?: boolean;
    quiet?: boolean;
    /** Pads the whole hertz to three places, so that points align. */
    pad?: boolean;
  }
  let { text, hot = false, quiet = false, pad = false }: Props = $props();
  const t = $derived(tone(text));
</script>

<span class="f" class:hot class:quiet
  >{#if t.decimal}<s>{pad ? ' '.repeat(Math.max(0, 3 - t.whole.length)) : ''}</s>{t.whole}<i>.</i
    >{t.decimal}{:else}{t.whole}{/if}{#if t.unit}<u>{t.unit}</u>{/if}</span
>

<style>
  .f {
    font-family: var(--figs);
    white-space: nowrap;
  }
  i {
    font-style: normal;
    margin: 0 var(--dot);
  }
  s {
    text-decoration: none;
    white-space: pre;
  }
  u {
    text-decoration: none;
    font: var(--w-normal) var(--t-note) / 1 var(--text);
    color: var(--ink3);
    margin-left: 3px;
  }
  .hot {
    color: var(--conflict);
    font-weight: var(--w-strong);
  }
  .quiet {
    color: var(--ink3);
  }
</style>
