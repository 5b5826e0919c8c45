<script setup lang="ts">
defineProps<{ id?: string }>();
</script>

<template><p>Hemp</p></template>
