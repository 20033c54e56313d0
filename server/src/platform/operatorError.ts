/**
 * Something that whoever runs the program can put right: a setting, a file, a folder. The message says what is wrong and
 * what to do; a command that meets one prints it and ends with exit code 2.
 */
export class OperatorError extends Error {}
