export * from './dialog';
export { MouldDialog } from './mould-dialog';
