<script lang="ts">
  import Broken from './Broken.svelte';
</script>

<Broken
  error="It could not be loaded: the application does not answer. Start it again."
  reset={() => {
    location.reload();
  }}
/>
