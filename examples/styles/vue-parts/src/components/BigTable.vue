<script setup>
defineProps(['open'])
</script>
<template><div class="x">BigTable</div></template>
