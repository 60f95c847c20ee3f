import { PICTURE_ENDINGS, READ_ENDINGS, READ_FORMATS_SAID } from '@/core/formats/endings';
import { FileButton } from '@/ui/file-button';
import { bringInFiles } from './bring-in';

/** Opens the system's dialog for a file. */
export const BringInButton = () => (
  <FileButton
    accept={[...READ_ENDINGS, ...PICTURE_ENDINGS]}
    label="Drawing or picture to bring in"
    title={`An ${READ_FORMATS_SAID} file, or a picture to trace. You can also drop one anywhere, or paste it`}
    className="w-100 mt-2"
    onFiles={bringInFiles}
  >
    Bring in a drawing or picture
  </FileButton>
);
