<script lang="ts">
  /** The position of this device, when somebody asks for it. */
  let { take }: { take: (place: string) => void } = $props();
  let says = $state('');
  const can = 'geolocation' in navigator && isSecureContext;

  function ask() {
    says = 'waiting for the position…';
    navigator.geolocation.getCurrentPosition(
      (p) => {
        const { latitude, longitude, accuracy } = p.coords;
        says = `to about ${accuracy < 1000 ? `${String(Math.round(accuracy))} m` : `${String(Math.round(accuracy / 1000))} km`}`;
        take(`${latitude.toFixed(4)}, ${longitude.toFixed(4)}`);
      },
      (e) => {
        says =
          e.code === e.PERMISSION_DENIED
            ? 'The browser does not give the position: allow it, or type a locator.'
            : 'The device does not know where it is: type a locator.';
      },
      { enableHighAccuracy: true, timeout: 20_000, maximumAge: 60_000 },
    );
  }
</script>

{#if can}
  <p class="flex flex-wrap items-baseline gap-x-3 py-0.5">
    <button type="button" class="link max-desk:min-h-11" onclick={ask}>Use the position of this device</button>
    <span role="status" class="text-label text-ink2">{says}</span>
  </p>
{/if}
