export default () => <p>ladder</p>;
