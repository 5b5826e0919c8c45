<template><div><side-bar v-if="isDesktop" /><el-dialog :visible.sync="showAbout" title="About"><about-box /></el-dialog><a @click="showAbout = true">About</a><router-view /></div></template>
<script>
import SideBar from '@/components/SideBar.vue';
import AboutBox from '@/components/AboutBox.vue';
export default { components: { SideBar, AboutBox }, data: () => ({ showAbout: false }), computed: { isDesktop() { return window.matchMedia('(min-width: 1024px)').matches; } } };
</script>
