export const Fragment = Symbol('fragment');
export const jsx = (type, props, key) => ({ type, props, key });
export const jsxs = jsx;
