'use client';

/** Asks for the passphrase by which others of the network are let in. */
import { useMutation } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { call } from '@/api/call';
import { API } from '@/api/endpoints';
import { Logo } from '@/ui/marks';
import { OpenLine } from '@/ui/open-line';
import styles from './enter.module.css';

type Props = {
  /** The address to go to then. */
  readonly to: string;
  /** Whether others of the network can read along. */
  readonly isOpen: boolean;
};

/** The page that asks for the passphrase. */
export function EnterScreen({ to, isOpen }: Props) {
  const [words, setWords] = useState('');
  const enter = useMutation({
    mutationFn: () => call(API.enter, {}, { passphrase: words }),
    // A page that was asked for before is made anew: what was made for somebody who was not in is of no use.
    onSuccess: () => window.location.assign(to),
  });
  const send = (e: FormEvent) => {
    e.preventDefault();
    if (words && !enter.isPending) enter.mutate();
  };
  return (
    <main className={styles.page}>
      <form className={styles.form} onSubmit={send}>
        <h1 className={styles.brand}>
          <Logo />
          Needlefile
        </h1>
        <Form.Group controlId="passphrase">
          <Form.Label>Passphrase of this shop</Form.Label>
          <Form.Control
            type="password"
            autoComplete="current-password"
            autoFocus
            value={words}
            onChange={(e) => setWords(e.target.value)}
            isInvalid={enter.isError}
            aria-describedby={enter.isError ? 'passphrase-fault' : undefined}
          />
          {enter.isError && (
            <p id="passphrase-fault" role="alert" className="text-danger mt-2 mb-0">
              {enter.error.message}
            </p>
          )}
        </Form.Group>
        {isOpen && <OpenLine />}
        <Button variant="primary" type="submit" disabled={enter.isPending || enter.isSuccess || !words}>
          {enter.isPending ? 'Looking …' : 'Go in'}
        </Button>
      </form>
    </main>
  );
}
