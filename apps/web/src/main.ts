import { i18n } from '@lingui/core';
import { compileMessage } from '@lingui/message-utils/compileMessage';
import './app/theme.css';

// English stands where it is shown, each page with its own, and is read when it is first said.
i18n.setMessagesCompiler(compileMessage);
i18n.loadAndActivate({ locale: 'en', messages: {} });
// Labels are read when their module is, so the language is there before any of them.
void import('./app/start').then(({ start }) => start(document.getElementById('root')!));
