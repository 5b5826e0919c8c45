<script setup lang="ts">
defineProps<{ id?: string }>();
</script>

<template><p>Lost</p></template>
