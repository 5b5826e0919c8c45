export default () => <p>page</p>;
