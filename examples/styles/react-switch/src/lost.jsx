export default () => <p>lost</p>;
