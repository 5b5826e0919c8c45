export default 'pages/deep/bean';
