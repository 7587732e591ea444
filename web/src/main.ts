import './app.css';
import { mount } from 'svelte';
import App from './App.svelte';

const target = document.getElementById('app');
// The script is read and the page is built in two steps, so that neither is long.
if (target) setTimeout(() => mount(App, { target }));
