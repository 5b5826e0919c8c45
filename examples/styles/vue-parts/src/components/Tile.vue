<script setup>
defineProps(['open'])
</script>
<template><div class="x">Tile</div></template>
