export default 'cards/a';
