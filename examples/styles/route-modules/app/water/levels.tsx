export default () => <p>levels</p>;
