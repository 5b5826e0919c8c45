<template><p>AboutBox</p></template>
<script>export default {};</script>
