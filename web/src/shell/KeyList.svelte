<script lang="ts">
  import { commands, type Command } from '$session/commands.svelte';
  import { keyWords, written } from '$session/keys';

  /** All keys of this view, as the registry has them; each can be changed. */
  const scopes = $derived([...new Set(commands.list.map((c) => c.scope))]);
  const withKeys = (scope: string) =>
    commands.list.filter((c) => c.scope === scope && ((c.keys?.length ?? 0) > 0 || commands.changed(c.id)));
  let changing = $state('');

  function take(e: KeyboardEvent, c: Command) {
    if (e.key === 'Tab') return;
    e.preventDefault();
    e.stopPropagation();
    const key = written(e);
    if (!key) return;
    if (key !== 'Escape') commands.remap(c.id, key === 'Backspace' || key === 'Delete' ? '' : key);
    changing = '';
  }
  const focus = (node: HTMLElement) => {
    node.focus();
  };
</script>

<div class="[columns:3_250px] gap-6">
  {#each scopes as scope (scope)}
    {#if withKeys(scope).length > 0}
      <section class="mb-4 break-inside-avoid" aria-label={scope}>
        <h3 class="mb-1 border-b border-bold font-strong">{scope}</h3>
        <ul>
          {#each withKeys(scope) as c (c.id)}
            <li class="flex min-h-7 items-baseline gap-2 border-b border-rule max-desk:min-h-11">
              <span class="mr-auto">{c.says}</span>
              {#if changing === c.id}
                <input
                  {@attach focus}
                  readonly
                  class="w-32 rounded-[2px] border border-accent bg-water px-1 text-small"
                  value="press a key"
                  aria-label="New key for {c.says}; Delete for none, Escape to keep it"
                  onkeydown={(e) => {
                    take(e, c);
                  }}
                  onblur={() => (changing = '')}
                />
              {:else}
                {#if commands.changed(c.id)}<button
                    type="button"
                    class="link text-label"
                    aria-label="The first key of {c.says} again"
                    onclick={() => {
                      commands.remap(c.id, undefined);
                    }}>reset</button
                  >{/if}
                <button
                  type="button"
                  class="text-right font-figs text-small hover:underline"
                  aria-label="{c.says}: {commands.keys(c).map(keyWords).join(', ') || 'none'}; change"
                  onclick={() => (changing = c.id)}>{commands.keys(c).map(keyWords).join(', ') || 'none'}</button
                >
              {/if}
            </li>
          {/each}
        </ul>
      </section>
    {/if}
  {/each}
</div>
<label class="flex items-center gap-2">
  <input
    type="checkbox"
    checked={commands.signs}
    onchange={(e) => {
      commands.setSigns(e.currentTarget.checked);
    }}
  />
  Signs such as = and / act by themselves (keys with Ctrl or Alt always do)
</label>
