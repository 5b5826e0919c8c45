<script lang="ts">
  import Graft from '$lib/Graft.svelte';
  import Plan from '$lib/Plan.svelte';
  import Notes from '$lib/Notes.svelte';
  import Member from '$lib/Member.svelte';
  import Below from '$lib/Below.svelte';
  import { MediaQuery } from 'svelte/reactivity';
  import Wide from '$lib/Wide.svelte';
  let planOpen = $state(false);
  let { data } = $props();
  let MapView: any = $state(null);
  let seen = $state(false);
  const wide = new MediaQuery('min-width: 900px');
  async function openMap() { MapView = (await import('$lib/MapView.svelte')).default; }
  function inView(node: HTMLElement, cb: () => void) { new IntersectionObserver(cb).observe(node); }
</script>
<Graft rows={data.rows} />
<button onclick={() => (planOpen = true)}>Plan the rows</button>
{#if planOpen}<Plan bind:open={planOpen} />{/if}
<button onclick={openMap}>Open the map</button>
{#if MapView}<MapView />{/if}
{#if data.notes}<Notes />{/if}
{#if data.user}<Member />{/if}
<div use:inView={() => (seen = true)}>{#if seen}<Below />{/if}</div>
{#if wide.current}<Wide />{/if}
{#await import('$lib/Late.svelte') then { default: Late }}<Late />{/await}
<style>button { color: green }</style>
