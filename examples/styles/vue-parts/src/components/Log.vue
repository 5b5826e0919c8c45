<script setup>
defineProps(['open'])
</script>
<template><div class="x">Log</div></template>
