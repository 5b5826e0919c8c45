export default 'widgets/clock';
