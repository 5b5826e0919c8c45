<script setup>
defineProps(['open'])
</script>
<template><div class="x">SideMenu</div></template>
