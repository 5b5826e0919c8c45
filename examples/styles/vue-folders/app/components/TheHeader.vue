<template><header>Ice</header></template>
