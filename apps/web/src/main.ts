import { i18n } from '@lingui/core';
import './app/theme.css';
import { messages } from './locales/en.po';

i18n.loadAndActivate({ locale: 'en', messages });
// Labels are read when their module is, so the language is there before any of them.
void import('./app/start').then(({ start }) => start(document.getElementById('root')!));
