export default () => null;
