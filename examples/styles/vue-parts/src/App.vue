<script setup lang="ts">
import KilnHeader from './components/KilnHeader.vue'
</script>
<template>
  <kiln-header />
  <router-view />
</template>
