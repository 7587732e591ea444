<script lang="ts">
  import { figures, figuresOf } from '$lib/format';

  interface Props {
    hz?: number;
    /** The frequency or offset as decimal text, instead of hz. */
    text?: string;
    /** Shows the sign, for a shift. */
    signed?: boolean;
    /** Quiet: it agrees with its reference. */
    same?: boolean;
    /** Pads MHz to this many places, so that points align. */
    pad?: number;
  }
  let { hz, text = '', signed = false, same = false, pad = 0 }: Props = $props();
  const f = $derived(hz === undefined ? figuresOf(text) : figures(hz));
</script>

<span class="f" class:same
  >{#if signed}<b>{f.sign}</b>{f.mhz}{:else}<s>{' '.repeat(Math.max(0, pad - f.mhz.length))}</s><b>{f.mhz}</b>{/if}<i
    >.</i
  >{f.khz}{#if f.rest}<small>{f.rest}</small>{/if}</span
>

<style>
  .f {
    font-family: var(--figs);
    font-weight: var(--w-normal);
    white-space: nowrap;
  }
  b {
    font-weight: var(--w-strong);
  }
  s {
    text-decoration: none;
    white-space: pre;
  }
  i {
    font-style: normal;
    margin: 0 var(--dot);
  }
  small {
    font-size: 0.74em;
    color: var(--ink2);
    margin-left: 1px;
  }
  .same {
    color: var(--ink3);
  }
  .same b {
    font-weight: var(--w-normal);
  }
</style>
