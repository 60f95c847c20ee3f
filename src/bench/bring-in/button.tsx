import { FileInput } from 'lucide-react';
import { useRef } from 'react';
import Button from 'react-bootstrap/Button';
import { PICTURE_ENDINGS, READ_ENDINGS, READ_FORMATS_SAID } from '@/core/formats/endings';
import { bringInFiles } from './bring-in';

/** Opens the system's dialog for a file. */
export function BringInButton() {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={input}
        type="file"
        hidden
        multiple
        accept={[...READ_ENDINGS, ...PICTURE_ENDINGS].join()}
        aria-label="Drawing or picture to bring in"
        onChange={(e) => {
          void bringInFiles([...(e.target.files ?? [])]);
          // The same file may be chosen again.
          e.target.value = '';
        }}
      />
      <Button
        variant="plain"
        className="w-100 mt-2"
        title={`An ${READ_FORMATS_SAID} file, or a picture to trace. You can also drop one anywhere, or paste it`}
        onClick={() => input.current?.click()}
      >
        <FileInput size={14} className="me-1" aria-hidden="true" />
        Bring in a drawing or picture
      </Button>
    </>
  );
}
