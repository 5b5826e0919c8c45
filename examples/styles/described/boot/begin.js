export default 'begin';
