<script setup>
defineProps(['open'])
</script>
<template><div class="x">Settings</div></template>
