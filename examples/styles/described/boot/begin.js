import './look.scss';

export default 'begin';
