<script>
  import Bar from '$lib/Bar.svelte';
  let { children } = $props();
</script>
<Bar />
{@render children()}
