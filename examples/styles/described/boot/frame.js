export default 'frame';
