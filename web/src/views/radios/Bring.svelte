<script lang="ts">
  import Button from '$parts/Button.svelte';
  import Dialog from '$parts/Dialog.svelte';

  interface Props {
    open: boolean;
    trouble: string;
    bring: (yaml: string) => Promise<boolean>;
  }
  /** Takes a profile in YAML, from a file or pasted. */
  let { open = $bindable(), trouble, bring }: Props = $props();
  let yaml = $state('');

  async function file(e: Event & { currentTarget: HTMLInputElement }) {
    yaml = (await e.currentTarget.files?.[0]?.text()) ?? yaml;
  }

  async function take() {
    if (await bring(yaml)) {
      yaml = '';
      open = false;
    }
  }
</script>

<Dialog
  bind:open
  title="Import a profile"
  says="Choose a file, or paste the YAML of a profile that somebody gave you. It becomes one of yours."
  wide="narrow"
>
  <input
    type="file"
    accept=".yaml,.yml,text/yaml"
    aria-label="Profile file"
    class="mb-2 block max-desk:min-h-11"
    onchange={(e) => void file(e)}
  />
  <textarea
    bind:value={yaml}
    aria-label="Profile in YAML"
    rows="12"
    spellcheck="false"
    placeholder="name: Loft radio"
    class="w-full rounded-[2px] border border-rule2 bg-sheet p-2 font-figs text-small"></textarea>
  {#if trouble}<p role="alert" class="text-stop">{trouble}</p>{/if}
  {#snippet acts()}<Button kind="main" disabled={!yaml.trim()} onclick={() => void take()}>Import this profile</Button
    >{/snippet}
</Dialog>
