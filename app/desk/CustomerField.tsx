import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import type { CustomerChoice } from '@hand-relay/contract';
import { api } from '../state/index.ts';
import { Suggest, useSettled } from '../ui/index.ts';
import { withCustomer, type EnterForm } from './enterForm.ts';

/** Finds the customer of an order; their address goes into the form. */
export function CustomerField({
  form,
  onChange,
  error,
}: {
  form: EnterForm;
  onChange: (form: EnterForm) => void;
  error: string | undefined;
}) {
  const { t } = useTranslation();
  const [before, setBefore] = useState<CustomerChoice | null>(null);
  // Once chosen, the others are offered when somebody types again.
  const find = useSettled(form.customer === '' ? form.customerText : '');
  const { currentData, isFetching } = api.useCustomerChoicesQuery({ find });
  const customers = currentData?.customers ?? [];
  return (
    <Suggest
      label={t('enter.customer')}
      placeholder={t('enter.customerFind')}
      value={form.customerText}
      onChange={(customerText) => onChange({ ...form, customer: '', customerText })}
      options={customers.map((c) => ({
        key: c.number,
        title: `${c.number} · ${c.name}`,
        detail: `${c.postcode} ${c.city}`,
        aside: t('order.class', { class: c.class }),
      }))}
      onPick={(number) => {
        const customer = customers.find((c) => c.number === number)!;
        onChange(withCustomer(form, customer, before));
        setBefore(customer);
      }}
      nothing={form.customerText !== '' && form.customer === '' && !isFetching ? t('enter.customerNone') : null}
      error={error}
    />
  );
}
