export default () => <p>apples</p>;
