export default 'levers';
