export default 'words/en';
