import './app.css';
import { mount } from 'svelte';
import App from './App.svelte';
import { theme } from '$lib/theme.svelte';

theme.apply();
const target = document.getElementById('app');
if (target) mount(App, { target });
