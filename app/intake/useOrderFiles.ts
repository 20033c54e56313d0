import { useRef, useState } from 'react';
import { useTranslation } from 'react-i18next';
import { nanoid } from '@reduxjs/toolkit';
import { LARGEST_ORDER_FILE, type IntakeResult } from '@hand-relay/contract';
import { api, notify, troubleOf, useAppDispatch, words, type Call } from '../state/index.ts';
import { base64Of } from '../ui/index.ts';
import { changedLayout, sameHeading, toTake, type Layout } from './layout.ts';

/** A file that was chosen: what taking it would do, or why it cannot be read. */
export interface OrderFile {
  key: string;
  name: string;
  /** Its bytes in base64. */
  data: string;
  /** How a person says that it is read; null goes by its sender, or by what is found. */
  layout: Layout | null;
  /** By which name the layout is remembered; empty for not at all. */
  sender: string;
  result: IntakeResult | null;
  trouble: string | null;
}

/** Order files on their way in: each looked at when it is chosen and whenever its layout changes, taken together. */
export function useOrderFiles() {
  const { t } = useTranslation();
  const send = useAppDispatch();
  const [ask] = api.useIntakeMutation();
  const [files, setFiles] = useState<OrderFile[]>([]);
  /** How many are taken so far; null while none are. */
  const [taken, setTaken] = useState<number | null>(null);

  const put = (key: string, part: Partial<OrderFile>) =>
    setFiles((list) => list.map((f) => (f.key === key ? { ...f, ...part } : f)));
  // Of several looks at a file the last counts, whichever is answered last.
  const looks = useRef(new Map<string, number>());
  const look = async (file: OrderFile) => {
    const { key, name, data, layout } = file;
    const turn = (looks.current.get(key) ?? 0) + 1;
    looks.current.set(key, turn);
    const { data: result, error } = await ask({
      mode: 'preview',
      document: name,
      file: data,
      ...(layout ? { layout } : {}),
    });
    if (looks.current.get(key) !== turn) return;
    put(key, {
      ...(result ? { result } : {}),
      trouble: error ? words(troubleOf(error)) : null,
      ...(!layout && result?.file?.sender ? { sender: result.file.sender } : {}),
    });
  };
  const open = async (chosen: File[]) => {
    for (const file of chosen) {
      const made: OrderFile = {
        key: nanoid(),
        name: file.name,
        data: '',
        layout: null,
        sender: '',
        result: null,
        trouble: file.size > LARGEST_ORDER_FILE ? t('intake.tooLarge') : null,
      };
      if (made.trouble === null) made.data = await base64Of(file);
      setFiles((list) => [...list, made]);
      if (made.trouble === null) await look(made);
    }
  };
  /** Changes how a file is read, and with it every other that has the same headings. */
  const change = (file: OrderFile, part: Partial<Layout>) => {
    const found = file.result!.file!;
    // What a person said stays said, also while the file is being read again.
    const layout = file.layout ? changedLayout(file.layout, [], part) : changedLayout(found, found.guesses, part);
    const alike = files.filter((f) => f.key === file.key || sameHeading(f.result, file.result));
    for (const each of alike) {
      put(each.key, { layout });
      void look({ ...each, layout });
    }
  };
  const name = (file: OrderFile, sender: string) =>
    setFiles((list) =>
      list.map((f) => (sameHeading(f.result, file.result) || f.key === file.key ? { ...f, sender } : f)),
    );
  const drop = (key: string) => setFiles((list) => list.filter((f) => f.key !== key));

  /** @returns whether all of them are in */
  const takeAll = async (): Promise<boolean> => {
    const wanted = files.filter((f) => f.result && toTake(f.result) > 0);
    const undo: Call[] = [];
    let orders = 0;
    setTaken(0);
    for (const { key, name: document, data, layout, sender } of wanted) {
      const answer = await ask({
        mode: 'take',
        document,
        file: data,
        ...(layout ? { layout } : {}),
        ...(sender.trim() === '' ? {} : { sender: sender.trim() }),
      });
      if (!answer.data) {
        put(key, { trouble: words(troubleOf(answer.error)) });
        continue;
      }
      orders += toTake(answer.data);
      if (answer.data.import) undo.unshift({ name: 'undoImport', id: answer.data.import, body: {} });
      drop(key);
      setTaken((n) => (n ?? 0) + 1);
    }
    setTaken(null);
    if (undo.length > 0) send(notify({ kind: 'done', text: t('intake.taken', { count: orders }), undo }));
    return undo.length === wanted.length;
  };
  return { files, open, change, name, drop, takeAll, clear: () => setFiles([]), taken };
}
