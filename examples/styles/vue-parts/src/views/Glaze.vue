<script setup lang="ts">
import { computed, ref, onMounted } from 'vue'
import WidePanel from '../components/WidePanel.vue'
import Curve from '../components/Curve.vue'
import Help from '../components/Help.vue'
const state = ref<'idle'|'help'>('idle')
const helping = computed(() => state.value === 'help')
const { data: recipe } = useFetch('/api/recipe')
</script>
<template>
  <Curve v-if="recipe.toxic" />
  <button @click="() => { state = 'help' }">Ask for help</button>
  <Help v-if="helping" />
  <WidePanel v-if="user" />
</template>
