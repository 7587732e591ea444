<script lang="ts" generics="Fix extends { label: string }">
  import Button from '$parts/Button.svelte';
  import Mark, { severityMark } from '$parts/Mark.svelte';
  import Why from '$parts/Why.svelte';

  interface Finding {
    rule: string;
    severity: 'stop' | 'fix' | 'check' | 'note';
    side?: string;
    title: string;
    message: string;
    about: string;
    source: string;
    why?: readonly { witness: string; text: string }[];
    fixes: readonly Fix[];
  }

  /** What the rules say, gravest first, with what would mend it; the first fix has the key. */
  let { findings, key, fix }: { findings: readonly Finding[]; key: string; fix: (f: Fix) => void } = $props();
  let open = $state<string[]>([]);
  let notes = $state(false);
  const grave = $derived(findings.filter((f) => f.severity !== 'note'));
  const shown = $derived(notes ? findings : grave);
  const first = $derived(shown.flatMap((f) => f.fixes)[0]);
  const name = (f: Finding) => f.rule + (f.side ?? '');
  const hidden = $derived(findings.length - grave.length);
</script>

<section aria-label="Findings" aria-live="polite">
  {#each shown as f, nth (nth)}
    <div class="one">
      <span class="w-5 flex-none pt-px"><Mark kind={severityMark(f.severity)} /></span>
      <div class="min-w-0 flex-1">
        <h3>{f.title}</h3>
        <p>{f.message}</p>
        <div class="do">
          {#each f.fixes as x, i (i)}<Button
              key={x === first ? key : ''}
              fix={x === first ? 'live' : 'idle'}
              onclick={() => {
                fix(x);
              }}>{x.label}</Button
            >{/each}
          <Why
            bind:open={
              () => open.includes(name(f)), (v) => (open = v ? [...open, name(f)] : open.filter((o) => o !== name(f)))
            }
          />
        </div>
        {#if open.includes(name(f))}
          <dl>
            {#each f.why ?? [] as w, i (i)}<dt>{w.witness}</dt>
              <dd>{w.text}</dd>{/each}
            <dt>rule</dt>
            <dd>{f.rule}: {f.about}</dd>
            <dt>source</dt>
            <dd>{f.source}</dd>
          </dl>
        {/if}
      </div>
    </div>
  {/each}
  {#if hidden > 0}<button
      type="button"
      class="link my-1.5 ml-5 max-desk:min-h-11"
      aria-expanded={notes}
      onclick={() => (notes = !notes)}
      >{notes ? 'without the notes' : hidden === 1 ? '1 note' : `${String(hidden)} notes`}</button
    >{/if}
</section>

<style>
  .one {
    display: flex;
    border-bottom: 1px solid var(--rule);
    padding: 8px 0;
  }
  h3 {
    font-size: 15px;
    line-height: 1.25;
    font-weight: var(--w-strong);
  }
  .do {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 14px;
    align-items: center;
    padding-top: 6px;
  }
  dl {
    display: grid;
    grid-template-columns: 66px minmax(0, 1fr);
    font-size: var(--t-label);
    color: var(--ink2);
    line-height: 1.35;
    padding-top: 6px;
  }
</style>
