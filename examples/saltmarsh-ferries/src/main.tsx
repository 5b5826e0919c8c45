import '@saltmarsh/tokens/base.css';
import { mount } from '@saltmarsh/view';
import { App } from './app/app';

const host = document.getElementById('pier');
if (host) mount(<App />, host);
