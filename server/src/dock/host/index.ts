export { confirmToHost, writeMessage, messagesOf, received, waitingFor } from './messages.ts';
