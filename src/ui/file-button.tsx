import { FileInput } from 'lucide-react';
import { type ReactNode, useEffect, useRef } from 'react';
import Button from 'react-bootstrap/Button';

/** Opens the system's dialog for files. */
export function FileButton({
  accept,
  label,
  title,
  className,
  onFiles,
  children,
}: {
  /** Endings of names, each with its dot. */
  accept: readonly string[];
  /** What the files are for. */
  label: string;
  title: string;
  className?: string;
  onFiles: (files: readonly File[]) => unknown;
  children: ReactNode;
}) {
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => {
    // A file chosen before the page answered was not heard of, and the browser says nothing of one that is chosen twice.
    if (input.current) input.current.value = '';
  }, []);
  return (
    <>
      <input
        ref={input}
        type="file"
        hidden
        multiple
        accept={accept.join()}
        aria-label={label}
        onChange={(e) => {
          onFiles([...(e.target.files ?? [])]);
          // The same file may be chosen again.
          e.target.value = '';
        }}
      />
      <Button variant="plain" className={className} title={title} onClick={() => input.current?.click()}>
        <FileInput size={14} className="me-1" aria-hidden="true" />
        {children}
      </Button>
    </>
  );
}
