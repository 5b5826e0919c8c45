export default () => <p>press</p>;
