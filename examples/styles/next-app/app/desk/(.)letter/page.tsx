export default () => <dialog open />;
