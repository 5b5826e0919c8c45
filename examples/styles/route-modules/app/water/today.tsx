export default () => <p>today</p>;
