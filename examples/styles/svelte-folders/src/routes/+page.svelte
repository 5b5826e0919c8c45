<script lang="ts">
  let open: boolean = $state(false);
</script>

<button onclick={() => (open = true)}>Map</button>
{#if open}
  {#await import('../lib/map.svelte') then { default: Map }}
    <Map />
  {/await}
{/if}
