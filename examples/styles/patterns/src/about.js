export default 'about';
