export default () => <p>yard</p>;
