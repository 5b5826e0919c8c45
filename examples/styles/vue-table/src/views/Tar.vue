<script setup lang="ts">
defineProps<{ id?: string }>();
</script>

<template><p>Tar</p></template>
