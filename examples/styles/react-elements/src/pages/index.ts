export { Home } from './home';
export * from './birds';
