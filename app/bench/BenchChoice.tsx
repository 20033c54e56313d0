import { useTranslation } from 'react-i18next';
import type { BenchQueue } from '@hand-relay/contract';
import { remember, remembered } from '../state/index.ts';
import { Choice } from '../ui/index.ts';

type Benches = BenchQueue['benches'];

/** The bench this screen stands at, kept by the device; the first one until somebody says. */
export function thisBench(benches: Benches, chosen: string | null = remembered('bench')): string {
  return benches.find((b) => b.code === chosen)?.code ?? benches[0]?.code ?? '';
}

export function BenchChoice({
  benches,
  value,
  onChange,
}: {
  benches: Benches;
  value: string;
  onChange: (code: string) => void;
}) {
  const { t } = useTranslation();
  const choose = (code: string) => {
    remember('bench', code);
    onChange(code);
  };
  return (
    <Choice
      label={t('bench.mine')}
      value={value}
      onChange={choose}
      options={benches.map((b) => ({ value: b.code, title: b.name.replace(/^\D+/, '') || b.name }))}
    />
  );
}
