<script lang="ts">
  /** Direction and distance as a small arrow: its length goes by the logarithm of the distance; past the horizon it is dotted. */
  let { degrees, km, past = false }: { degrees: number; km: number; past?: boolean } = $props();
  const long = $derived(4 + 9 * Math.max(0, Math.min(1, Math.log(Math.max(km, 1)) / Math.log(200))));
</script>

<svg class="inline-block flex-none align-[-5px]" width="22" height="22" viewBox="-11 -11 22 22" aria-hidden="true">
  <g transform="rotate({degrees})">
    <circle cy={long / 2} r="1.4" fill="currentColor" />
    <path
      d="M0,{long / 2}V{-long / 2 + 3}"
      stroke="currentColor"
      stroke-width="1.2"
      stroke-dasharray={past ? '1.2 1.6' : undefined}
    />
    <path
      d="M0,{-long / 2 - 2}L2.6,{-long / 2 + 3}H-2.6Z"
      fill={past ? 'none' : 'currentColor'}
      stroke="currentColor"
      stroke-width={past ? 0.9 : 0}
    />
  </g>
</svg>
