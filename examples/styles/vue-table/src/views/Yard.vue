<script setup lang="ts">
defineProps<{ id?: string }>();
</script>

<template><p>Yard</p></template>
