export default 'cards/b/c';
