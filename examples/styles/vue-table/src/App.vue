<template><RouterView /></template>
