export default 'bell';
