<template>
  <section>
    <h1>{{ title }}</h1>
    <Curve />
    <button @click="toggleLog">Show the log</button>
    <Log v-if="logShown" />
    <button @click="tab = 'table'">Table</button>
    <button @click="tab = 'chart'">Chart</button>
    <BigTable v-if="tab === 'table'" />
    <Chart3d v-else-if="tab === 'chart'" />
    <Hint v-else />
    <Settings v-show="settings" />
    <a title="Settings" @click="settings = true"></a>
    <component :is="panels[which]" />
    <select v-model="which"><option>tile</option></select>
  </section>
</template>
<script>
import Curve from '../components/Curve.vue'
import Log from '../components/Log.vue'
import Hint from '../components/Hint.vue'
import Settings from '../components/Settings.vue'
import Tile from '../components/Tile.vue'
import Help from '../components/Help.vue'
export default {
  components: { Curve, Log, Hint, Settings, BigTable: () => import('../components/BigTable.vue'), Chart3d: () => import('../components/Chart3d.vue') },
  data() { return { logShown: false, tab: 'none', title: 'Firing', settings: false, which: 'help', panels: { tile: Tile, help: Help } } },
  methods: { toggleLog() { this.logShown = !this.logShown } }
}
</script>
