import { GALLERY_ANSWERS } from '../../../core/gallery/answers.ts';

/** All that may be wrong, in the order in which a connection comes about; one of them is it. */
export function GuessList({ onGuess }: { onGuess: (answer: string) => void }) {
  return (
    <div className="grid gap-x-5 gap-y-3 md:grid-cols-3">
      {GALLERY_ANSWERS.map(({ name, answers }) => (
        <section key={name} aria-label={name}>
          <h3 className="mb-1 border-b border-hair text-small text-soft">{name}</h3>
          <ul>
            {answers.map(({ id, title }) => (
              <li key={id}>
                <button
                  type="button"
                  onClick={() => onGuess(id)}
                  className="w-full rounded-control px-1.5 py-1 text-left hover:bg-verdigris-wash pointer-coarse:min-h-11"
                >
                  {title}
                </button>
              </li>
            ))}
          </ul>
        </section>
      ))}
    </div>
  );
}
