'use client';

/** The shop's typefaces in the user's own words. */
import { useMutation, useQueryClient } from '@tanstack/react-query';
import Link from 'next/link';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import ToastContainer from 'react-bootstrap/ToastContainer';
import { call } from '@/api/call';
import { API } from '@/api/endpoints';
import { LIMITS } from '@/core/limits';
import { keepable } from '@/core/units/text';
import { HelpButton } from '@/help/help-button';
import { Logo } from '@/ui/marks';
import { SchemeSwitch } from '@/ui/scheme-switch';
import { UndoToast } from '@/ui/undo-toast';
import { useDrop } from '@/ui/use-drop';
import { BringInFaces, BroughtFaces, useBringInFaces } from './bring-in-faces';
import { FaceDetail } from './face-detail';
import { FaceList } from './face-list';
import { FACES, useFaces } from './faces';
import styles from './faces.module.css';
import type { TriedWords } from './trials';

/** What faces are shown with until the user types words of their own. */
const WORDS = 'Alder Lane Garden';

const SET: Omit<TriedWords, 'text'> = {
  size: { by: 'capital', mm: 40 },
  letterSpacing: 0,
  lineSpacing: 1,
  align: 'left',
  evenLines: 'no',
  features: {},
  leastMm: 0,
};

/** The typefaces of the shop. */
export function TypefacesScreen() {
  const { families, error, refetch } = useFaces();
  const client = useQueryClient();
  const [words, setWords] = useState(WORDS);
  const [chosen, setChosen] = useState<string | null>(null);
  const [removed, setRemoved] = useState<{ content: string; file: string } | null>(null);
  useDrop(useBringInFaces());
  const restore = useMutation({
    mutationFn: (content: string) => call(API.restoreTypeface, { content }, null),
    onSuccess: () => {
      setRemoved(null);
      return client.invalidateQueries({ queryKey: FACES });
    },
  });
  const family = families.find((f) => f.family === chosen) ?? families[0];
  const text = words.trim() === '' ? WORDS : words;
  return (
    <main className={styles.screen}>
      <header className={styles.head}>
        <Link href="/" aria-label="All jobs" title="All jobs">
          <Logo />
        </Link>
        <h1>Typefaces</h1>
        <Form.Control
          size="sm"
          className={styles.words}
          aria-label="Your words"
          placeholder="Your words"
          value={words}
          maxLength={LIMITS.nameCharacters}
          onChange={(e) => setWords(keepable(e.target.value))}
        />
        <BringInFaces />
        <HelpButton at="typefaces" />
        <SchemeSwitch />
      </header>
      <BroughtFaces />
      {error && (
        <div className={styles.came} role="alert">
          {error.message} The typefaces that ship are here all the same.{' '}
          <Button variant="plain" onClick={() => void refetch()}>
            Try again
          </Button>
        </div>
      )}
      <div className={styles.columns}>
        <FaceList
          families={families}
          words={{ ...SET, text }}
          units="mm"
          chosen={family?.family ?? ''}
          onChoose={(face) => setChosen(families.find((f) => f.faces.includes(face))?.family ?? null)}
        />
        {family && (
          <FaceDetail
            key={family.family}
            family={family}
            text={text}
            onRemoved={(content, file) => setRemoved({ content, file })}
          />
        )}
      </div>
      <ToastContainer position="bottom-center" className="p-3 position-fixed">
        <UndoToast
          words={removed && `“${removed.file}” was taken out of the list.`}
          onUndo={() => removed && restore.mutate(removed.content)}
          onClose={() => setRemoved(null)}
        />
      </ToastContainer>
    </main>
  );
}
