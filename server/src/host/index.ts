export { confirmToHost, keepMessage, messagesOf, received, waitingFor } from './messages.ts';
