<script setup lang="ts">
import { ref, defineAsyncComponent } from 'vue'
import { useMediaQuery } from './use-media'
const narrow = useMediaQuery('(max-width: 640px)')
const menuOpen = ref(false)
const SideMenu = defineAsyncComponent(() => import('./SideMenu.vue'))
</script>
<template>
  <header><button v-if="narrow" @click="menuOpen = !menuOpen">Menu</button><SideMenu v-if="menuOpen" @close="menuOpen = false" /></header>
</template>
<style scoped lang="scss">
$c: red;
header { button { color: $c } }
</style>
