export const gust = (element) => element.animate([], 100);
