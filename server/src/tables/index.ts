export * from './items.ts';
export * from './journal.ts';
export * from './orders.ts';
export * from './people.ts';
export * from './site.ts';
export * from './stock.ts';
export * from './work.ts';
export * from './printing.ts';
