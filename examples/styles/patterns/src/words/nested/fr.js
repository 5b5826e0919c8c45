export default 'words/nested/fr';
