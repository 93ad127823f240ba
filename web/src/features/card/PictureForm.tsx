import { useEffect, useMemo, useState } from 'react';
import { shrink } from './shrink';
import { Words } from './BenchMenu';
import { Choices } from './Choices';

/** Takes or chooses a picture, shows it, and sends it with a few words. */
export function PictureForm({
  title,
  subjects,
  pending,
  onSend,
}: {
  title: string;
  /** what of the step it can show, such as one of several references; its name goes before the words */
  subjects: string[];
  pending: boolean;
  onSend: (file: Blob, caption: string) => void;
}) {
  const [file, setFile] = useState<Blob>();
  const [caption, setCaption] = useState('');
  const [subject, setSubject] = useState<string>();
  const preview = useMemo(() => file && URL.createObjectURL(file), [file]);
  useEffect(() => () => (preview ? URL.revokeObjectURL(preview) : undefined), [preview]);
  return (
    <>
      <p className="muted">To the step “{title}”. JPEG or PNG, at most 12 MB.</p>
      <label className="bench-button wide" htmlFor="picture">
        {file ? 'Another picture' : 'Take or choose a picture'}
      </label>
      <input
        id="picture"
        className="visually-hidden"
        type="file"
        accept="image/jpeg,image/png"
        capture="environment"
        onChange={(e) => {
          const chosen = e.target.files?.[0];
          if (chosen) void shrink(chosen).then(setFile);
        }}
      />
      {preview && <img className="picture-preview" src={preview} alt="The picture to be sent" />}
      {file && subjects.length > 1 && (
        <div role="group" aria-label="Which of them it shows">
          <span className="label">Which of them it shows</span>
          <Choices
            columns="three"
            options={subjects.map((s) => [s, s] as const)}
            chosen={subject}
            onChoose={setSubject}
          />
        </div>
      )}
      {file && <Words id="caption" label="What it shows" value={caption} onChange={setCaption} />}
      <button
        className="bench-button action wide"
        disabled={!file || pending}
        onClick={() => file && onSend(file, [subject, caption].filter(Boolean).join(': '))}
      >
        {pending ? 'Sending…' : 'Keep it'}
      </button>
    </>
  );
}
