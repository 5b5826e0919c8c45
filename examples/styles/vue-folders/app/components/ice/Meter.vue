<template><meter /></template>
