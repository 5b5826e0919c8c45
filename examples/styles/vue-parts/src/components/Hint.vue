<script setup>
defineProps(['open'])
</script>
<template><div class="x">Hint</div></template>
