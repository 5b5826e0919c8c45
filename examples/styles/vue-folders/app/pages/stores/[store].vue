<script setup>
definePageMeta({ layout: 'bare' });
</script>

<template><p>A store</p></template>
