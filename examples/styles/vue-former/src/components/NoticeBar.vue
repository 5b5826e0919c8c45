<template><p>NoticeBar</p></template>
<script>export default {};</script>
