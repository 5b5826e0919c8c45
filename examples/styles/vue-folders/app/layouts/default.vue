<template>
  <TheHeader />
  <slot />
</template>
