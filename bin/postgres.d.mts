export interface Postgres {
  port: number;
  address(database: string): string;
  stop(): Promise<void>;
}
export function freePort(): Promise<number>;
export function startPostgres(settings?: Record<string, string | number>): Promise<Postgres>;
