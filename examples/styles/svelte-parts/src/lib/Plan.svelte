<script>
  export let open = false;
</script>
<p class:open>Plan</p>
