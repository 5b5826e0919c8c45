export default () => <p>frame</p>;
