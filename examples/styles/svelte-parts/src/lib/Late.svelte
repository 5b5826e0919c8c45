<script>
  export let open = false;
</script>
<p class:open>Late</p>
