export default () => <p>day</p>;
