export default 'widgets/scale';
