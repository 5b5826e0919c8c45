export const tell = (what) => console.log(what);
