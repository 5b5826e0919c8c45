export const tick = () => setInterval(() => {}, 1000);
