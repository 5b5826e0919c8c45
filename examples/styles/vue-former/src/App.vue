<template><div id="app"><notice-bar v-if="$store.state.notice" /><router-view /></div></template>
<script>
import NoticeBar from './components/NoticeBar';
export default { name: 'App', components: { NoticeBar } };
</script>
<style lang="less">@c: red; #app { color: @c; }</style>
