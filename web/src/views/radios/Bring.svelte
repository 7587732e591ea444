<script lang="ts">
  import { Dialog } from 'bits-ui';

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

<Dialog.Root bind:open>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-30 bg-[color-mix(in_srgb,var(--paper)_70%,transparent)]" />
    <Dialog.Content
      class="fixed top-1/2 left-1/2 z-40 w-[min(640px,92vw)] -translate-x-1/2 -translate-y-1/2 border-2 border-bold bg-sheet p-6"
    >
      <Dialog.Title class="text-head font-strong">Import a profile</Dialog.Title>
      <Dialog.Description class="mb-3 text-ink2"
        >Choose a file, or paste the YAML of a profile that somebody gave you. It becomes one of yours.</Dialog.Description
      >
      <input
        type="file"
        accept=".yaml,.yml,text/yaml"
        aria-label="Profile file"
        class="mb-2 block"
        onchange={(e) => void file(e)}
      />
      <textarea
        bind:value={yaml}
        aria-label="Profile in YAML"
        rows="12"
        spellcheck="false"
        placeholder="name: Loft radio"
        class="w-full rounded-[2px] border border-rule2 bg-paper p-2 font-figs text-small"></textarea>
      {#if trouble}<p role="alert" class="text-stop">{trouble}</p>{/if}
      <div class="mt-3 flex gap-3">
        <button
          type="button"
          class="rounded-[2px] border border-accent px-3 py-1 font-medium text-accent disabled:text-ink3"
          disabled={!yaml.trim()}
          onclick={() => void take()}>Import this profile</button
        >
        <Dialog.Close class="rounded-[2px] border border-rule2 px-3 py-1">Close</Dialog.Close>
      </div>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
