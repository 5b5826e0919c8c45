<template><p>SideBar</p></template>
<script>export default {};</script>
