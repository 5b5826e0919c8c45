export const Hours = () => <table><tr><td>Monday</td><td>9–6</td></tr></table>;
