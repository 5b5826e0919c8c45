export default 'widgets/other';
