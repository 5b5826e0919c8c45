<template><ol /></template>
