export default () => <p>The desk</p>;
