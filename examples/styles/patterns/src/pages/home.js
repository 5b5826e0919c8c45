export default 'pages/home';
