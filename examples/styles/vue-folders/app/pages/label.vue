<script setup>
definePageMeta({ layout: false });
const blocks = useBlocks();
</script>

<template>
  <p>{{ melt(blocks.length) }} labels</p>
  <LazyIceChart hydrate-on-visible />
</template>
