import './tar-app';
