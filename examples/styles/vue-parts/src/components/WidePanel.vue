<script setup>
defineProps(['open'])
</script>
<template><div class="x">WidePanel</div></template>
