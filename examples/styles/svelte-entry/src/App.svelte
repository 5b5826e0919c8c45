<script>
  import { onMount } from 'svelte';
  import List from './List.svelte';
  import Edit from './Edit.svelte';
  import Help from './Help.svelte';
  import { modal } from './stores.js';
  let Chart;
  let showHelp = false;
  let tab = 'list';
  const tabs = { list: List, help: Help };
  onMount(async () => { Chart = (await import('./Chart.svelte')).default; });
</script>
<button on:click={() => modal.set('edit')}>Edit</button>
{#if $modal === 'edit'}<Edit on:close={() => modal.set(null)} />{/if}
<label><input type="checkbox" bind:checked={showHelp} /> Help</label>
{#if showHelp}<Help />{/if}
<svelte:component this={tabs[tab]} />
<svelte:component this={Chart} />
