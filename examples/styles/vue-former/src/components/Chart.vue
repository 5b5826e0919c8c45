<template><p>Chart</p></template>
<script>export default {};</script>
