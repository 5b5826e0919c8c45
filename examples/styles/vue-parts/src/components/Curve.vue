<script setup>
defineProps(['open'])
</script>
<template><div class="x">Curve</div></template>
