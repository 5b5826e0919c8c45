<script setup lang="ts">
defineProps<{ id?: string }>();
</script>

<template><p>Coils</p></template>
