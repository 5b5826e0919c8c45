<template><div><chart v-if="ready && rows.length" :rows="rows" /><button @click="load">Load</button></div></template>
<script>
import Chart from '../components/Chart.vue';
export default { components: { Chart }, data() { return { ready: false, rows: [] } }, methods: { async load() { this.rows = await fetchRows(); this.ready = true; } } };
</script>
