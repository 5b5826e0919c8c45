<script setup lang="ts">
defineProps<{ id?: string }>();
</script>

<template><p>Walk</p></template>
