export default 'ring';
