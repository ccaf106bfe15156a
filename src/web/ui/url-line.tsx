export interface UrlPart {
  readonly name: string;
  readonly text: string;
  /** Signs between the parts, drawn without a dimension line. */
  readonly isSign?: boolean;
}

/** A URL drawn like a part on a drafting sheet: each piece with its dimension line and name below. */
export function UrlLine({ parts }: { parts: readonly UrlPart[] }) {
  return (
    <figure className="m-0">
      <figcaption className="sr-only">{parts.map(({ text }) => text).join('')}</figcaption>
      <div aria-hidden="true" className="flex flex-wrap items-start gap-y-2 font-mono text-[15px] leading-6">
        {parts.map(({ name, text, isSign }) =>
          isSign ? (
            <span key={name} className="text-soft">
              {text}
            </span>
          ) : (
            <span key={name} className="inline-flex min-w-0 flex-col items-stretch">
              <span className={`break-all ${name === 'scheme' ? 'text-soft' : ''}`}>{text}</span>
              <span className="mt-1 block h-[9px] border-x border-soft">
                <span className="block h-[5px] border-b border-soft" />
              </span>
              <span className="text-center font-sans text-small text-soft">{name}</span>
            </span>
          ),
        )}
      </div>
    </figure>
  );
}
