<script setup>
defineProps(['open'])
</script>
<template><div class="x">Chart3d</div></template>
