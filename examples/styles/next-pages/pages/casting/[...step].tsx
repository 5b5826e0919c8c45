export { Casting as default } from '../../parts/casting';
