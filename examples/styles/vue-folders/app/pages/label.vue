<script setup>
definePageMeta({ layout: false });
</script>

<template><p>A label</p></template>
