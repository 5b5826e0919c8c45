<template><p>Stores</p></template>
