<script setup>
defineProps(['open'])
</script>
<template><div class="x">Help</div></template>
