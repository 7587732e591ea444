<script lang="ts">
  import Dialog from '$parts/Dialog.svelte';
  import KeyList from './KeyList.svelte';
  import { shell } from './shell.svelte';
</script>

<Dialog
  bind:open={
    () => true,
    (o) => {
      if (!o) shell.open = '';
    }
  }
  title="Keys"
  says="Press a key's button to choose another one. Whatever you type with nothing chosen goes to the line or the search."
>
  <KeyList />
</Dialog>
