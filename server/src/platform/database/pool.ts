import pg from 'pg';

// Money and sums are 64 bits wide there; none of ours comes near the 53 that a number holds exactly.
pg.types.setTypeParser(pg.types.builtins.INT8, Number);

/**
 * Lets the database keep the plan of every statement it has seen: planning costs more than running one of ours. Works
 * alike for the embedded database and a server.
 */
export function keepPlans(pool: pg.Pool): void {
  pool.on('connect', (client) => {
    const names = new Map<string, string>();
    const query = client.query.bind(client) as (...given: unknown[]) => unknown;
    client.query = ((first: unknown, ...rest: unknown[]) => {
      const statement = first as pg.QueryConfig;
      if (typeof first !== 'object' || !statement.text || statement.name || !Array.isArray(rest[0]))
        return query(first, ...rest);
      const name = names.get(statement.text) ?? `s${names.size}`;
      names.set(statement.text, name);
      return query({ ...statement, name }, ...rest);
    }) as typeof client.query;
  });
}

/**
 * Keeps a connection whose statement was refused. The pool would close it: the embedded database has only the one,
 * with its plans and its ear for notifications, and a server's is as good as before.
 */
export function keepAfterRefusal(pool: pg.Pool): void {
  pool.query = (async (...given: unknown[]) => {
    const client = await pool.connect();
    try {
      return await (client.query as (...g: unknown[]) => Promise<unknown>)(...given);
    } finally {
      client.release();
    }
  }) as typeof pool.query;
}
