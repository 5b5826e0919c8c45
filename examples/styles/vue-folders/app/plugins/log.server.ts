export default defineNuxtPlugin(() => {});
