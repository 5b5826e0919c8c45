<script setup lang="ts">
const open = ref(false);
</script>

<template>
  <button @click="open = true">Blocks</button>
  <LazyBlockList v-if="open" />
  <ice-meter />
</template>
