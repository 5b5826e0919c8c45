export default 'pages/_part';
