/** What a packer says by scanning the sheet of commands, in the order of the work. */
export const packCommands = [
  'open',
  'all',
  'undo',
  'weigh',
  'counted',
  'close',
  'print',
  'other',
  'next',
  'help',
] as const;
export type PackCommand = (typeof packCommands)[number];

/** The barcode of a command. */
export const commandCode = (command: PackCommand): string => `DO-${command.toUpperCase()}`;

/**
 * The command that was scanned; null where it is something else.
 *
 * @example
 * packCommand('do-next') // 'next'
 */
export function packCommand(text: string): PackCommand | null {
  const code = text.trim().toUpperCase();
  return packCommands.find((command) => commandCode(command) === code) ?? null;
}
