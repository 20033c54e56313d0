import { commonRefusals, effectOn, endpoints, type Endpoint } from '@hand-relay/contract';
import { reachOfEndpoints, type Reach } from './reach.ts';

describe('the table of effects, held against the code behind it', () => {
  const reach = reachOfEndpoints();
  /** An endpoint that waits for a job can be refused and can change what the job does. */
  const reachOf = (name: string, { starts }: Endpoint): Reach => {
    const own = reach.get(name)!;
    const job = starts && own.waits ? reach.get(`job ${starts}`)! : own;
    return {
      waits: own.waits,
      topics: new Set([...own.topics, ...job.topics]),
      refusals: new Set([...own.refusals, ...job.refusals]),
    };
  };
  const behind = Object.entries<Endpoint>(endpoints).map(
    ([name, endpoint]) => [name, endpoint, reachOf(name, endpoint)] as const,
  );

  it('finds the code of every endpoint', () => {
    expect(behind.every(([, , { refusals }]) => refusals instanceof Set)).toBe(true);
    expect(reach.get('confirm')!.refusals).toContain('tracking-missing');
    expect(reach.get('confirm')!.topics).toContain('host');
    expect(reach.get('orders')!.topics.size).toBe(0);
  });

  it('has every topic that an endpoint can publish', () => {
    const undeclared = behind.flatMap(([name, { changes = [] }, { topics }]) => {
      const declared = new Set(changes.map((effect) => effectOn(effect, '').topic as string));
      return [...topics].filter((topic) => !declared.has(topic)).map((topic) => `${name}: ${topic}`);
    });
    expect(undeclared).toEqual([]);
  });

  it('has every refusal that an endpoint can make, and no other', () => {
    const differs = behind.flatMap(([name, { refuses = [] }, { refusals }]) => {
      const own = [...refusals].filter((code) => !(commonRefusals as ReadonlySet<string>).has(code));
      const missing = own.filter((code) => !(refuses as readonly string[]).includes(code));
      const never = refuses.filter((code) => !refusals.has(code));
      return [...missing.map((code) => `${name}: lacks ${code}`), ...never.map((code) => `${name}: never ${code}`)];
    });
    expect(differs).toEqual([]);
  });
});
