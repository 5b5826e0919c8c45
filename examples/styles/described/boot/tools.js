export default 'tools';
