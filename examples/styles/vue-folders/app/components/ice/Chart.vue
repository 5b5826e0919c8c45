<template><p>A chart of the ice</p></template>
