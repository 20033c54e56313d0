export { confirmToHost, keepMessage, messagesOf, received } from './messages.ts';
