export default () => <p>mill</p>;
