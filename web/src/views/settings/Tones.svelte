<script lang="ts">
  import Tone from '$parts/Tone.svelte';
  import type { Follows } from '$lib/api/client';

  /** The two schools of tones, each with what it makes of channels of this plan. */
  interface Props {
    policies: readonly string[];
    value: string;
    follows: Follows | undefined;
    changed: () => void;
  }
  let { policies, value = $bindable(), follows, changed }: Props = $props();
  const says: Record<string, string> = {
    'encode first': 'You hear idents, courtesy tones and weak users, and can tell a dead repeater from a wrong tone.',
    'tone squelch first': 'Only the repeater is heard, where its tone is published.',
  };
</script>

<fieldset>
  <legend class="sr-only">Tone policy</legend>
  <div class="two">
    {#each policies as p (p)}
      <div>
        <label class="flex min-h-7 items-baseline gap-2 py-1 max-desk:min-h-11">
          <input type="radio" name="tone_policy" value={p} bind:group={value} onchange={changed} />
          <span><b class="font-strong">{p}</b> <span class="block text-small text-ink2">{says[p] ?? ''}</span></span>
        </label>
        {#if follows && follows.tones.length > 0}
          <ul class="pl-6 text-small">
            {#each follows.tones as t, nth (nth)}
              <li class="example">
                <span class="font-figs text-ink2">{t.slot}</span><span class="truncate">{t.name}</span><span
                  ><Tone text={t.sends} /></span
                ><span class="text-ink2"
                  >→ {#if p === 'encode first'}open{:else}<Tone text={t.sent} />{/if}</span
                >
              </li>
            {/each}
          </ul>
        {/if}
      </div>
    {/each}
  </div>
  <p class="pt-1 text-label text-ink2">
    It goes for what is added from now on. Where another repeater on the output may be heard and yours sends a tone,
    both use tone squelch; where it sends none, neither does.
  </p>
</fieldset>

<style>
  .two {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 4px 24px;
  }
  .example {
    display: grid;
    grid-template-columns: 26px minmax(0, 1fr) 76px 86px;
    border-top: var(--hair);
    line-height: 22px;
  }
  @media (max-width: 45em) {
    .two {
      grid-template-columns: 1fr;
    }
  }
</style>
