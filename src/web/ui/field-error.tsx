/** What is wrong with a list of fields, below it. */
export const FieldError = ({ text }: { text: string | undefined }) =>
  text === undefined ? null : (
    <p role="alert" className="mb-1.5 text-small text-brick">
      {text}
    </p>
  );
