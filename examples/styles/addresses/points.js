export default 'points';
