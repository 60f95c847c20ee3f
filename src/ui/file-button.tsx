import { FileInput } from 'lucide-react';
import { type ReactNode, useEffect, useEffectEvent, useRef } from 'react';
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
  const take = (from: HTMLInputElement): void => {
    const files = [...(from.files ?? [])];
    // The same file may be chosen again.
    from.value = '';
    if (files.length > 0) onFiles(files);
  };
  const takeWaiting = useEffectEvent(() => {
    if (input.current) take(input.current);
  });
  // What was chosen before the page answered was not heard of yet.
  useEffect(() => takeWaiting(), []);
  return (
    <>
      <input
        ref={input}
        type="file"
        hidden
        multiple
        accept={accept.join()}
        aria-label={label}
        onChange={(e) => take(e.target)}
      />
      <Button variant="plain" className={className} title={title} onClick={() => input.current?.click()}>
        <FileInput size={14} className="me-1" aria-hidden="true" />
        {children}
      </Button>
    </>
  );
}
